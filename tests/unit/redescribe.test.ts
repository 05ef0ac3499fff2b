import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { redescribed } from '$lib/core/read/redescribe';
import { matchRecipe } from '$lib/core/read/refresh';
import { encodeRecords } from '$lib/core/table/arrowWrite';
import { showCell } from '$lib/core/table/cell';
import { findBench } from '$lib/server/storage/benches';
import { migrate, openDatabase, writing, type Database } from '$lib/server/storage/database';
import { findReading, storeReading } from '$lib/server/storage/readings';
import { redescribe } from '$lib/server/thread/perform/redescribe';
import { loadTable } from '$lib/server/thread/load';
import { readText } from '../support/demo';

const HARVESTS = 'Field,Season,Weight\nN,2021,3 t\nS,2021,4 t\nN,2022,5.5 t\nS,,1 t\n';
const { recipe, reading } = readText(HARVESTS);
const list = { table: reading.table, recipe };

describe('columns told otherwise', () => {
  it('a name and a unit, in the list and for its next files', () => {
    const told = redescribed(list, [{ id: 'field', name: 'Plot', unit: 'ha' }]);
    if (typeof told === 'string') throw new Error(told);
    expect(told.table.columns[0]).toMatchObject({ id: 'field', name: 'Plot', unit: 'ha' });
    // A file whose head is still the old one goes on being found.
    const next = matchRecipe(recipe, told.recipe);
    expect([next.differences, next.recipe.columns[0].name]).toEqual([[], 'Plot']);
  });

  it('plain numbers as years, blanks with them', () => {
    const told = redescribed(list, [{ id: 'season', as: 'years' }]);
    if (typeof told === 'string') throw new Error(told);
    const [, season] = told.table.columns;
    expect(season).toMatchObject({ type: 'date', grain: 'year' });
    expect([0, 2, 3].map((n) => showCell(season, n))).toEqual(['2021', '2022', '']);
    expect(readText(HARVESTS, () => told.recipe).reading.table.columns[1]).toMatchObject({
      type: 'date',
      grain: 'year',
    });
  });

  it('not two of one name, nor a unit that cells are read by, nor years that are none', () => {
    expect(redescribed(list, [{ id: 'field', name: 'season' }])).toBe(
      'Two columns would be called “Season”.',
    );
    expect(redescribed(list, [{ id: 'weight', unit: 'kg' }])).toBe(
      'Weight has its unit in its cells, by which it is read: it stays.',
    );
    expect(redescribed(list, [{ id: 'weight', as: 'years' }])).toContain('holds no years');
    expect(redescribed(list, [{ id: 'gone', name: 'x' }])).toContain('no such column');
  });
});

describe('of a stored list', () => {
  let folder = '';
  let db: Database;
  beforeEach(async () => {
    folder = mkdtempSync(path.join(tmpdir(), 'told-'));
    db = openDatabase(path.join(folder, 'loft.db'), 1e9);
    await migrate(db);
  });
  afterEach(async () => {
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  });

  it('a reading of the same cells, its files kept apart, its bench brought with what was set aside', async () => {
    const part = (fileName: string, records: number) => ({
      fileName,
      readAt: '',
      records,
      chunks: 1,
      doubts: [],
    });
    const stored = await writing(() =>
      db.transaction().execute((tx) =>
        storeReading(
          tx,
          {
            listId: null,
            listName: 'Harvests',
            fileName: 'b.csv',
            records: 4,
            recipe,
            doubts: [],
            // The first came in two chunks, as another program may send it.
            parts: [{ ...part('a.csv', 3), chunks: 2 }, part('b.csv', 1)],
            bench: {
              name: 'Bench 1',
              docFor: (id) => JSON.stringify(newBench(reading.table, id, [2])),
            },
          },
          [
            encodeRecords(reading.table, 0, 2),
            encodeRecords(reading.table, 2, 3),
            encodeRecords(reading.table, 3, 4),
          ],
        ),
      ),
    );
    const task = {
      task: 'redescribe' as const,
      database: path.join(folder, 'loft.db'),
      limitBytes: 1e9,
      listId: stored.listId,
      reading: stored.reading,
      changes: [{ id: 'season', name: 'Year', as: 'years' as const }],
    };
    const made = await redescribe(task);
    expect(made.lost).toBe(0);
    const facts = await findReading(db, made.reading);
    expect(facts?.parts.map((p) => [p.fileName, p.records, p.chunks])).toEqual([
      ['a.csv', 3, 1],
      ['b.csv', 1, 1],
    ]);
    const { table } = await loadTable(db, made.reading);
    expect(table.columns[1]).toMatchObject({ name: 'Year', type: 'date' });
    const doc = (await findBench(db, stored.bench ?? 0))?.doc;
    expect([doc?.reading, doc?.ladder.setAside.records]).toEqual([made.reading, [2]]);
    // It was said of a reading that is no longer the current one.
    await expect(redescribe(task)).rejects.toThrow('The list has moved on meanwhile.');
  });
});
