import {
  existsSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, restore } from '$lib/server/storage/backup';
import { checkDatabase } from '$lib/server/storage/checkDatabase';
import {
  databasePath,
  migrate,
  openDatabase,
  writing,
  type Database,
} from '$lib/server/storage/database';
import { makeFolder } from '$lib/server/storage/dataFolder';
import { lockFolder } from '$lib/server/storage/folderLock';

let folder: string;
let db: Database | null = null;
const within = (name: string): string => path.join(folder, name);

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-data-'));
});
afterEach(async () => {
  await db?.destroy();
  db = null;
  rmSync(folder, { recursive: true });
});

/** The folder with a database that is up to date and open, as a server has it. */
async function opened(): Promise<Database> {
  db = openDatabase(databasePath(folder));
  await migrate(db);
  return db;
}
const listsIn = (file: string): unknown[] => {
  const sqlite = new Sqlite(file, { readonly: true });
  try {
    return sqlite.prepare('select name from lists order by id').pluck().all();
  } finally {
    sqlite.close();
  }
};
const addList = (to: Database, name: string): Promise<unknown> =>
  writing(() =>
    to
      .insertInto('lists')
      .values({
        name,
        created_at: '2026-12-02',
        current_reading: null,
        origin: null,
        made_of: null,
        made_fault: null,
      })
      .execute(),
  );

describe('a data folder', () => {
  it('is one server’s: a second is told so and touches nothing', () => {
    const lock = lockFolder(folder);
    writeFileSync(within('incoming'), 'on its way');
    expect(() => lockFolder(folder)).toThrow(/Another Tally Loft runs on the data folder/);
    expect(readFileSync(within('incoming'), 'utf8')).toBe('on its way');
    lock.release();
    lockFolder(folder).release();
    expect(statSync(within('tally-loft.lock')).mode & 0o777).toBe(0o600);
  });

  it('that is a file, or lies in one, is named', () => {
    writeFileSync(within('data'), '');
    for (const name of ['data', 'data/inner'])
      expect(() => makeFolder(within(name))).toThrow(
        /is a file\. TALLY_LOFT_DATA names the folder/,
      );
    makeFolder(within('new/inner'));
    expect(existsSync(within('new/inner'))).toBe(true);
  });
});

describe('a database is looked at before it is opened', () => {
  it('one of a later version, of another kind, or none at all is named', async () => {
    await opened();
    const file = databasePath(folder);
    expect(checkDatabase(file)).toEqual({ wasOpen: true });
    await db?.destroy();
    expect(checkDatabase(file)).toEqual({ wasOpen: false });
    const sqlite = new Sqlite(file);
    sqlite.exec("insert into kysely_migration values ('0999-later', '2030-01-01')");
    sqlite.close();
    expect(() => checkDatabase(file)).toThrow(/later version of Tally Loft .*0999-later/);
    writeFileSync(file, 'Route,Fares\n'.repeat(1000));
    expect(() => checkDatabase(file)).toThrow(/no database of Tally Loft/);
    expect(() => checkDatabase(within('none'))).toThrow(/no database of Tally Loft/);
  });

  it('one that was left open and is damaged is not opened', async () => {
    const data = await opened();
    for (let n = 0; n < 300; n++) await addList(data, `List ${n} ${'x'.repeat(400)}`);
    await data.destroy();
    db = null;
    const file = databasePath(folder);
    const bytes = readFileSync(file);
    bytes.fill(0xa5, Math.floor(bytes.length / 2), Math.floor(bytes.length / 2) + 4096);
    writeFileSync(file, bytes);
    // As a server leaves it that was killed.
    writeFileSync(`${file}-wal`, 'not closed');
    expect(() => checkDatabase(file)).toThrow(/damaged/);
  });

  it('a save to one that was removed or replaced fails, and says so', async () => {
    const data = await opened();
    await addList(data, 'Kept');
    const file = databasePath(folder);
    renameSync(file, within('moved'));
    await expect(addList(data, 'Lost')).rejects.toThrow(/removed or replaced/);
    writeFileSync(file, 'another');
    await expect(addList(data, 'Lost')).rejects.toThrow(/removed or replaced/);
    rmSync(file);
    renameSync(within('moved'), file);
    await addList(data, 'Kept too');
    expect(listsIn(file)).toEqual(['Kept', 'Kept too']);
  });
});

describe('a backup', () => {
  it('is whole while others write, and comes back in the place of what is there', async () => {
    const data = await opened();
    await addList(data, 'First');
    const copy = within('copy.sqlite');
    // Writes go on while it is made: what is in it is what was there at one moment.
    let going = true;
    const writes = (async () => {
      for (let n = 0; going && n < 500; n++) await addList(data, `While ${n}`);
    })();
    await backUp(folder, copy);
    going = false;
    await writes;
    const kept = listsIn(copy);
    expect(kept[0]).toBe('First');
    expect(kept).toEqual(listsIn(databasePath(folder)).slice(0, kept.length));
    await expect(backUp(folder, copy)).rejects.toThrow(/no backup writes over a file/);

    await addList(data, 'After');
    await data.destroy();
    db = null;
    const before = await restore(folder, copy);
    expect(listsIn(databasePath(folder))).toEqual(kept);
    expect(listsIn(before ?? '').at(-1)).toBe('After');
    expect(await restore(folder, copy)).toMatch(/before-restore-2$/);
  });

  it('is not brought back under a running server, nor from a file that is none', async () => {
    await opened();
    const copy = within('copy.sqlite');
    await backUp(folder, copy);
    const lock = lockFolder(folder);
    await expect(restore(folder, copy)).rejects.toThrow(/Another Tally Loft runs/);
    lock.release();
    writeFileSync(within('text'), 'no database');
    await expect(restore(folder, within('text'))).rejects.toThrow(/no database of Tally Loft/);
    await expect(backUp(within('empty'), within('x'))).rejects.toThrow(/no data in/);
  });
});
