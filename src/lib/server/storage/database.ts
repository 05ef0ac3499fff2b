import { StorageFull, StorageGone } from '../errors';
import { mkdirSync, statSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import { migrations } from './migrations';
import type { Schema } from './schema';

export type Database = Kysely<Schema>;

export const databasePath = (dataFolder: string): string =>
  path.join(dataFolder, 'tally-loft.sqlite');

/**
 * Opens the database, made when missing. Write-ahead logging, foreign keys, and full
 * synchronisation, so that a save that was answered survives a power cut.
 * @param limitBytes room the file may take; 0: no limit
 */
export function openDatabase(file: string, limitBytes = 0): Database {
  mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
  const sqlite = new Sqlite(file);
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('foreign_keys = ON');
  sqlite.pragma('synchronous = FULL');
  // Waiting would hold up the whole server: writes try again by themselves (see `writing`).
  sqlite.pragma('busy_timeout = 0');
  if (limitBytes > 0) {
    const size = Number(sqlite.pragma('page_size', { simple: true }));
    sqlite.pragma(`max_page_count = ${Math.max(1, Math.floor(limitBytes / size))}`);
  }
  opened.push({ sqlite, file, inode: inodeOf(file) });
  return new Kysely<Schema>({ dialect: new SqliteDialect({ database: sqlite }) });
}

/** What this process opened, and the file that each was then. */
const opened: {
  readonly sqlite: Sqlite.Database;
  readonly file: string;
  readonly inode: number;
}[] = [];

/** The number of a file on its disk; 0 where there is none. */
const inodeOf = (file: string): number => statSync(file, { throwIfNoEntry: false })?.ino ?? 0;

/**
 * Makes sure that what this process has open is what stands at its name: a write to a file that was removed or
 * replaced would be lost.
 * @throws StorageGone
 */
export function checkStillThere(): void {
  for (let k = opened.length - 1; k >= 0; k--) {
    const { sqlite, file, inode } = opened[k];
    if (!sqlite.open) opened.splice(k, 1);
    else if (inode !== 0 && inodeOf(file) !== inode) throw new StorageGone();
  }
}

/** Brings the database up to the newest form. @throws the first migration's error */
export async function migrate(db: Database, upTo?: string): Promise<string[]> {
  const migrator = new Migrator({ db, provider: { getMigrations: async () => migrations } });
  const { error, results } = upTo
    ? await migrator.migrateTo(upTo)
    : await migrator.migrateToLatest();
  if (error) throw error;
  return (results ?? []).map((r) => r.migrationName);
}

const WAIT_MS = 25;
const TRIES = 600;

/**
 * SQLite takes a transaction back by itself when there is no room; Kysely's own rollback then
 * finds none and its error hides the first.
 */
const tookItselfBack = (error: unknown): boolean =>
  error instanceof Error && error.message.includes('no transaction is active');

const codeOf = (error: unknown): string =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : '';

/**
 * Does a write, again and again while another connection holds the database.
 * @throws StorageFull, StorageGone
 */
export async function writing<T>(work: () => Promise<T>): Promise<T> {
  checkStillThere();
  for (let tries = 1; ; tries++) {
    try {
      return await work();
    } catch (error) {
      const code = codeOf(error);
      if (
        code.startsWith('SQLITE_FULL') ||
        code.startsWith('SQLITE_IOERR') ||
        tookItselfBack(error)
      )
        throw new StorageFull();
      if (!code.startsWith('SQLITE_BUSY') || tries >= TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
    }
  }
}
