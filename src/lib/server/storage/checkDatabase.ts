import { existsSync, statSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import { CannotStart } from '../errors';
import { migrations } from './migrations';

const RESTORE =
  'Bring a backup back (“npm run restore FILE”), or name another folder in TALLY_LOFT_DATA.';

/** What a check found, for the log. */
export interface Checked {
  /** The server before ended without closing its database, and its pages were looked through. */
  readonly wasOpen: boolean;
}

/**
 * Looks at a database before it is opened for work: it is one, no later version made it, and where the server before
 * ended without closing it, its pages fit together (SQLite’s integrity check).
 * @throws CannotStart
 */
export function checkDatabase(file: string): Checked {
  const wasOpen = existsSync(`${file}-wal`) && statSync(`${file}-wal`).size > 0;
  let sqlite: Sqlite.Database | null = null;
  try {
    sqlite = new Sqlite(file, { fileMustExist: true });
    const later = stepsOf(sqlite).find((name) => !(name in migrations));
    if (later !== undefined)
      throw new CannotStart(
        `The data in “${file}” were written by a later version of Tally Loft (its step “${later}” is not known here). Start that version, or bring back an older backup.`,
      );
    const faults = wasOpen ? String(sqlite.pragma('integrity_check(1)', { simple: true })) : 'ok';
    if (faults !== 'ok')
      throw new CannotStart(`The data in “${file}” are damaged: ${faults}. ${RESTORE}`);
    return { wasOpen };
  } catch (error) {
    if (error instanceof CannotStart) throw error;
    throw new CannotStart(
      `“${file}” is no database of Tally Loft, or it is damaged (${error instanceof Error ? error.message : String(error)}). ${RESTORE}`,
    );
  } finally {
    sqlite?.close();
  }
}

/** The migrations that a database went through; none where it is new. */
function stepsOf(sqlite: Sqlite.Database): string[] {
  const [made] = sqlite
    .prepare("select count(*) from sqlite_master where name = 'kysely_migration'")
    .pluck()
    .all();
  return made === 0
    ? []
    : sqlite.prepare('select name from kysely_migration').pluck().all().map(String);
}
