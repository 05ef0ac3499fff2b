import {
  accessSync,
  chmodSync,
  constants,
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
} from 'node:fs';
import Sqlite from 'better-sqlite3';
import { CannotStart } from '../errors';
import { databasePath } from './database';

/** What the application itself puts into its folder. */
const OURS = /^(tally-loft\.(sqlite|lock)|incoming$|connections\.json$)/;

/** Makes the data folder where there is none. @throws CannotStart */
export function makeFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? error.code : '';
    throw new CannotStart(
      code === 'EEXIST' || code === 'ENOTDIR'
        ? `“${folder}” is a file. TALLY_LOFT_DATA names the folder that the data are kept in.`
        : `The data folder “${folder}” cannot be written to (${String(code)}). Give this account the right to, or name another folder in TALLY_LOFT_DATA.`,
    );
  }
}

/**
 * Makes the data folder and its database readable by their owner alone. A folder that holds other
 * things as well keeps its own rights: it is not the application's.
 */
export function keepPrivate(folder: string): void {
  if (readdirSync(folder).every((name) => OURS.test(name))) chmodSync(folder, 0o700);
  const file = databasePath(folder);
  for (const name of [file, `${file}-wal`, `${file}-shm`])
    if (existsSync(name)) chmodSync(name, 0o600);
}

/**
 * Makes the first database of a folder whole or not at all: it is filled under another name, and
 * takes its own in one act. What an earlier try left is thrown away.
 * @param fill brings it up to date and fills it; every connection it opened is closed again
 */
export async function makeFirst(
  folder: string,
  fill: (file: string) => Promise<void>,
): Promise<void> {
  const file = databasePath(folder);
  const made = `${file}.first`;
  for (const end of ['', '-wal', '-shm']) rmSync(`${made}${end}`, { force: true });
  // Files beside it take the same rights.
  closeSync(openSync(made, 'a', 0o600));
  await fill(made);
  const sqlite = new Sqlite(made);
  sqlite.pragma('wal_checkpoint(TRUNCATE)');
  sqlite.close();
  renameSync(made, file);
}
