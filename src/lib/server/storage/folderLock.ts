import { closeSync, openSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { CannotStart } from '../errors';

/** A data folder, for one server. */
export interface FolderLock {
  release(): void;
}

/**
 * Takes a data folder for this process until it ends, however it ends: the lock is the operating system's, on a file
 * of its own, held by a SQLite transaction that is never finished.
 * @throws CannotStart where another server holds it; nothing in the folder was touched then
 */
export function lockFolder(folder: string): FolderLock {
  const file = path.join(folder, 'tally-loft.lock');
  closeSync(openSync(file, 'a', 0o600));
  const sqlite = new Sqlite(file, { timeout: 0 });
  try {
    sqlite.exec('begin exclusive');
  } catch {
    sqlite.close();
    throw new CannotStart(
      `Another Tally Loft runs on the data folder “${folder}”. Stop that one first, or name another folder in TALLY_LOFT_DATA.`,
    );
  }
  return { release: () => void sqlite.close() };
}
