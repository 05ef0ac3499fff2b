import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import { tableOfChunks } from '$lib/core/table/arrowRead';
import {
  addBench,
  benchesOf,
  deleteBench,
  findBench,
  insertBench,
  renameBench,
  saveBench,
} from '$lib/server/storage/benches';
import { migrate, openDatabase, writing, type Database } from '$lib/server/storage/database';
import { deleteList, findList, listNames, renameList, shelf } from '$lib/server/storage/lists';
import {
  findChunk,
  findReading,
  readingsOf,
  setCurrentReading,
  storeReading,
} from '$lib/server/storage/readings';
import { readText } from '../support/demo';

let folder = '';
let db: Database;
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-shelf-'));
  db = openDatabase(path.join(folder, 'loft.db'));
  await migrate(db);
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const FERRIES = readText('route,n\nHolm,1\nNess,2\n');
const KIOSKS = readText('kiosk,takings\nPier,7\n');

/** Stores a list, or another reading of one. */
const stored = (
  listName: string,
  { recipe, reading }: typeof FERRIES = FERRIES,
  listId: number | null = null,
) =>
  writing(() =>
    db.transaction().execute((tx) =>
      storeReading(
        tx,
        {
          listId,
          listName,
          fileName: `${listName}.csv`,
          records: reading.table.length,
          recipe,
          doubts: [],
          bench:
            listId === null
              ? {
                  name: 'Bench 1',
                  docFor: (id) => JSON.stringify(newBench(reading.table, id)),
                }
              : null,
        },
        [encodeChunk(reading.table, 0)],
      ),
    ),
  );

describe('lists on the shelf', () => {
  it('have the name they were given last, and are told by it', async () => {
    const { listId: list } = await stored('Sailings');
    await stored('Kiosks', KIOSKS);
    await renameList(db, list, 'Sailings of 2026');
    expect((await findList(db, list))?.name).toBe('Sailings of 2026');
    expect((await listNames(db)).map(({ name }) => name)).toEqual(['Kiosks', 'Sailings of 2026']);
    expect((await shelf(db)).map(({ name }) => name).sort()).toEqual([
      'Kiosks',
      'Sailings of 2026',
    ]);
  });

  it('go with all that is theirs, and nothing else goes', async () => {
    const { listId: list, reading } = await stored('Sailings');
    const other = await stored('Kiosks', KIOSKS);
    const [bench] = await benchesOf(db, list);
    await deleteList(db, list);
    expect(await findList(db, list)).toBeUndefined();
    expect(await findReading(db, reading)).toBeUndefined();
    expect(await findChunk(db, reading, 0)).toBeUndefined();
    expect(await findBench(db, bench.id)).toBeUndefined();
    expect((await findReading(db, other.reading))?.records).toBe(1);
    expect(await benchesOf(db, other.listId)).toHaveLength(1);
  });

  it('tell which bench is their first', async () => {
    const { listId: list, reading } = await stored('Sailings');
    const [first] = await benchesOf(db, list);
    const doc = newBench(FERRIES.reading.table, reading);
    await addBench(db, list, 'Second', doc);
    expect((await listNames(db)).map((l) => l.bench)).toEqual([first.id]);
    await deleteBench(db, first.id);
    expect((await listNames(db))[0].bench).toBeGreaterThan(first.id);
  });
});

describe('readings of a list', () => {
  it('are numbered, the newest first, and one of them is current', async () => {
    const { listId: list, reading } = await stored('Sailings');
    const second = await stored('Sailings', readText('route,n\nHolm,3\n'), list);
    const readings = await readingsOf(db, list);
    expect(readings.map((r) => [r.id, r.number, r.records])).toEqual([
      [second.reading, 2, 1],
      [reading, 1, 2],
    ]);
    expect(readings.filter((r) => r.current)).toHaveLength(1);
    await setCurrentReading(db, list, reading);
    expect((await readingsOf(db, list)).find((r) => r.current)?.id).toBe(reading);
    expect((await listNames(db))[0].reading).toBe(reading);
  });

  it('are read back as they were', async () => {
    const { reading } = await stored('Sailings');
    const chunk = await findChunk(db, reading, 0);
    const back = tableOfChunks(chunk ? [chunk] : [], 2);
    expect(back.columns.map((c) => c.name)).toEqual(['route', 'n']);
    expect(await findChunk(db, reading, 1)).toBeUndefined();
    expect(await readingsOf(db, 99)).toEqual([]);
  });
});

describe('benches of a list', () => {
  it('are added, renamed and deleted, each by itself', async () => {
    const { listId: list, reading } = await stored('Sailings');
    const doc = newBench(FERRIES.reading.table, reading);
    const id = await addBench(db, list, 'Months', doc);
    await renameBench(db, id, 'By month');
    expect((await benchesOf(db, list)).map(({ name }) => name).sort()).toEqual([
      'Bench 1',
      'By month',
    ]);
    await saveBench(db, id, 1, { ...doc, lead: 'n' });
    expect((await findBench(db, id))?.doc).toMatchObject({ lead: 'n' });
    await deleteBench(db, id);
    expect((await benchesOf(db, list)).map(({ name }) => name)).toEqual(['Bench 1']);
  });

  it('are made within the work that makes their list, or not at all', async () => {
    const { listId: list } = await stored('Sailings');
    const failed = writing(() =>
      db.transaction().execute(async (tx) => {
        await insertBench(tx, list, 'Half', '{}');
        throw new Error('no room');
      }),
    );
    await expect(failed).rejects.toThrow('no room');
    expect(await benchesOf(db, list)).toHaveLength(1);
  });
});
