import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { CannotStart } from '../errors';
import { checkDatabase } from './checkDatabase';
import { databasePath } from './database';
import { lockFolder } from './folderLock';

/** Copies `from` whole, as it is at one moment, while others write: SQLite’s own online backup. */
async function copyOf(from: string, to: string): Promise<void> {
  const sqlite = new Sqlite(from, { fileMustExist: true, readonly: true });
  try {
    await sqlite.backup(to);
  } finally {
    sqlite.close();
  }
}

/**
 * Writes all data of a folder into one file, while a server runs on it or not. The file takes its name when it is whole.
 * @throws CannotStart where there are no data, or something stands at that name already
 */
export async function backUp(folder: string, file: string): Promise<void> {
  const database = databasePath(folder);
  if (!existsSync(database)) throw new CannotStart(`There are no data in “${folder}” to back up.`);
  if (existsSync(file))
    throw new CannotStart(
      `“${file}” is there already, and no backup writes over a file. Give another name.`,
    );
  mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  const part = `${file}.part`;
  rmSync(part, { force: true });
  try {
    await copyOf(database, part);
    checkDatabase(part);
    renameSync(part, file);
  } finally {
    rmSync(part, { force: true });
  }
}

/**
 * Puts a backup in the place of the data of a folder, whose server must be stopped. What was there stays beside it.
 * @returns where the data that were there are kept; null where there were none
 * @throws CannotStart where a server runs, or the file is no backup that this version can open
 */
export async function restore(folder: string, file: string): Promise<string | null> {
  checkDatabase(file);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const lock = lockFolder(folder);
  try {
    const database = databasePath(folder);
    const part = `${database}.part`;
    rmSync(part, { force: true });
    await copyOf(file, part);
    const kept = existsSync(database) ? keptBeside(database) : null;
    // Pages that wait beside it belong to it.
    for (const end of ['', '-wal', '-shm'])
      if (kept && existsSync(`${database}${end}`)) renameSync(`${database}${end}`, `${kept}${end}`);
    renameSync(part, database);
    return kept;
  } finally {
    lock.release();
  }
}

/** A name beside a database that nothing has. */
function keptBeside(database: string): string {
  for (let n = 1; ; n++) {
    const name = `${database}.before-restore-${n}`;
    if (!existsSync(name)) return name;
  }
}
