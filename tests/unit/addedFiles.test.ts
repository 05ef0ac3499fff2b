import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { moveBench } from '$lib/core/bench/move';
import { fullCell } from '$lib/core/table/cell';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import { keyColumnsOf, overlapOf } from '$lib/core/read/overlap';
import { lostMonths, lostMonthsWords } from '$lib/core/read/lostMonths';
import type { Recipe } from '$lib/core/read/recipe';
import { AddRefused } from '$lib/server/errors';
import { findBench } from '$lib/server/storage/benches';
import { migrate, openDatabase, type Database } from '$lib/server/storage/database';
import { followParts } from '$lib/server/storage/readingParts';
import { findReading, readingsOf, stampOf } from '$lib/server/storage/readings';
import { store } from '$lib/server/thread/perform/store';
import { takeOut } from '$lib/server/thread/perform/takeOut';
import { loadTable } from '$lib/server/thread/load';
import type { Accepted } from '$lib/server/storage/acceptedIntakes';
import { readText } from '../support/demo';

/** Jobs of a repair shop, one file a month. */
const HEAD = 'job,done on,customer,hours\n';
const JANUARY = `${HEAD}101,2024-01-08,Ahlberg,2.5\n102,2024-01-19,Bruun,1\n103,2024-01-30,Ahlberg,4\n`;
const FEBRUARY = `${HEAD}103,2024-01-30,Ahlberg,4\n104,2024-02-02,Dahl,3\n105,2024-02-27,Bruun,0.5\n`;
const read = (text: string, recipe?: Recipe) => readText(text, recipe ? () => recipe : undefined);

describe('records that a list has already', () => {
  const { recipe, reading } = read(JANUARY);
  const list = reading.table;
  const of = (text: string, key: readonly string[] = []) =>
    finish(overlapOf(list, read(text, recipe).reading.table, key));

  it('are those that are the same in every column', () => {
    expect(of(FEBRUARY)).toEqual({
      records: [1],
      differing: 0,
      first: [{ record: 1, there: 3, words: '103, 2024-01-30, Ahlberg, 4' }],
    });
  });

  it('by a key also those with other values, which are counted', () => {
    const restated = FEBRUARY.replace('Ahlberg,4', 'Ahlberg,6');
    expect(of(restated).records).toEqual([]);
    expect(of(restated, ['job'])).toMatchObject({ records: [1], differing: 1 });
  });

  it('one for one: the second of two equal records is new where the list has one', () => {
    expect(of(`${HEAD}102,2024-01-19,Bruun,1\n102,2024-01-19,Bruun,1\n`).records).toEqual([1]);
  });

  it('are none where a key is blank', () => {
    const blank = `${HEAD},2024-02-01,Dahl,1\n`;
    expect(of(blank, ['job']).records).toEqual([]);
    // Two blanks are no key in common.
    const lacking = read(`${JANUARY},2024-01-31,Dahl,2\n`).reading.table;
    const file = read(blank, recipe).reading.table;
    expect(finish(overlapOf(lacking, file, ['job'])).records).toEqual([]);
  });

  it('the columns that may tell a record hold no value twice', () => {
    expect(finish(keyColumnsOf(list))).toEqual([['job'], ['done_on']]);
  });

  it('where no column does it alone, the fewest do it together; a blank among them tells nothing', () => {
    const rota = 'shift,workshop,day,crew\n';
    const keysOf = (text: string) => finish(keyColumnsOf(read(`${rota}${text}`).reading.table));
    const day = (n: number) => `2024-03-0${n}`;
    expect(keysOf(`a,N,${day(1)},x\nb,N,${day(1)},x\na,S,${day(1)},x\na,N,${day(2)},x\n`)).toEqual([
      ['shift', 'workshop', 'day'],
    ]);
    expect(keysOf(`a,N,${day(1)},x\nb,N,${day(1)},x\na,N,${day(2)},x\nb,N,${day(2)},x\n`)).toEqual([
      ['shift', 'day'],
    ]);
    // Two records that are the same in every column are told by none of them.
    expect(keysOf(`a,N,${day(1)},x\na,N,${day(1)},x\n`)).toEqual([]);
    expect(keysOf(`a,N,${day(1)},x\nb,,${day(1)},x\na,S,${day(1)},x\na,N,${day(2)},x\n`)).toEqual(
      [],
    );
  });

  it('adding a part of a list to it adds nothing, whatever the part', () => {
    const records = fc.array(fc.tuple(fc.constantFrom('a', 'b', ''), fc.integer({ max: 3 })), {
      minLength: 1,
      maxLength: 30,
    });
    const tableOf = (all: readonly (readonly [string, number])[]): Table => ({
      length: all.length,
      columns: [
        textColumn(
          'k',
          all.map(([k]) => k || null),
        ),
        scalarColumn(
          'n',
          'number',
          all.map(([, n]) => n),
        ),
      ],
    });
    fc.assert(
      fc.property(
        records,
        fc.array(fc.boolean(), { minLength: 30, maxLength: 30 }),
        (all, take) => {
          const part = all.filter((_, k) => take[k]);
          const overlap = finish(overlapOf(tableOf(all), tableOf(part), []));
          expect(overlap.records).toEqual(part.map((_, k) => k + 1));
        },
      ),
    );
  });
});

describe('what a refresh would lose', () => {
  it('is said by months', () => {
    const list = read(JANUARY).reading.table;
    const file = read(FEBRUARY).reading.table;
    const lost = finish(lostMonths(list, file));
    expect(lost && lostMonthsWords(lost)).toBe('By done on fewer in Jan 2024 (1 of 3)');
    const same = finish(lostMonths(list, list));
    expect(same && lostMonthsWords(same)).toBe('');
    expect(finish(lostMonths({ length: 1, columns: [textColumn('a', ['x'])] }, list))).toBeNull();
  });
});

describe('a list that files are added to', () => {
  let folder = '';
  let db: Database;
  beforeEach(async () => {
    folder = mkdtempSync(path.join(tmpdir(), 'added-'));
    db = openDatabase(path.join(folder, 'loft.db'), 1e9);
    await migrate(db);
  });
  afterEach(async () => {
    await db.destroy();
    rmSync(folder, { recursive: true, force: true });
  });

  let sent = 0;
  /** Sends a file as the page does. */
  async function send(
    name: string,
    text: string,
    to: { listId: number; addTo: number | null } | null = null,
    setAside: number[] = [],
    given?: Recipe,
  ): Promise<Accepted> {
    const { recipe, reading } = read(text, given);
    const chunk = path.join(folder, `${++sent}.arrow`);
    writeFileSync(chunk, encodeChunk(reading.table, 0));
    return store({
      task: 'store',
      intake: `intake ${sent}`,
      database: path.join(folder, 'loft.db'),
      limitBytes: 1e9,
      chunkFiles: [chunk],
      listId: to?.listId ?? null,
      addTo: to?.addTo ?? null,
      listName: 'Jobs',
      fileName: name,
      records: reading.table.length,
      recipe,
      doubts: [
        {
          kind: 'twins',
          count: 1,
          words: 'One stands twice.',
          places: [{ record: 1, text: '' }],
          asks: false,
        },
      ],
      setAside,
      stated: false,
    });
  }
  const cells = async (reading: number): Promise<string[]> => {
    const { table } = await loadTable(db, reading);
    return Array.from({ length: table.length }, (_, i) =>
      table.columns.map((c) => fullCell(c, i)).join(' '),
    );
  };
  const lines = (text: string): string[] =>
    text
      .trim()
      .split('\n')
      .slice(1)
      .map((line) => line.replaceAll(',', ' '));
  const { recipe } = read(JANUARY);
  const february = FEBRUARY.replace('103,2024-01-30,Ahlberg,4\n', '');
  const march = `${HEAD}106,2024-03-02,Dahl,2\n`;

  it('keeps what was there, says its files and doubts of each, and lets each out again', async () => {
    const first = await send('jan.csv', JANUARY);
    const { listId } = first;
    const second = await send('feb.csv', february, { listId, addTo: first.reading }, [], recipe);
    const third = await send('mar.csv', march, { listId, addTo: second.reading }, [], recipe);
    expect(await cells(third.reading)).toEqual([JANUARY, february, march].flatMap(lines));
    const facts = await findReading(db, third.reading);
    expect(facts?.records).toBe(6);
    expect(facts?.parts.map((p) => [p.fileName, p.records, p.chunks])).toEqual([
      ['jan.csv', 3, 1],
      ['feb.csv', 2, 1],
      ['mar.csv', 1, 1],
    ]);
    expect(facts?.doubts.map((d) => [d.words, d.places[0].record])).toEqual([
      ['jan.csv: One stands twice.', 1],
      ['feb.csv: One stands twice.', 4],
      ['mar.csv: One stands twice.', 6],
    ]);
    const out = await takeOut({
      task: 'takeOut',
      database: path.join(folder, 'loft.db'),
      limitBytes: 1e9,
      listId,
      reading: third.reading,
      part: 1,
    });
    expect(await cells(out.reading)).toEqual([JANUARY, march].flatMap(lines));
    // The readings before are there still.
    expect(await cells(second.reading)).toEqual([JANUARY, february].flatMap(lines));
    expect(
      (await readingsOf(db, listId)).map((r) => [r.records, r.current, r.parts.length]),
    ).toEqual([
      [4, true, 2],
      [6, false, 3],
      [5, false, 2],
      [3, false, 0],
    ]);
  });

  it('what was set aside or corrected goes with its record, also of two that are alike', async () => {
    const twice = `${HEAD}101,2024-01-08,Ahlberg,2\n101,2024-01-08,Ahlberg,2\n`;
    const first = await send('jan.csv', twice, null, [2]);
    const { listId, bench } = first;
    const second = await send('feb.csv', february, { listId, addTo: first.reading }, [1], recipe);
    const doc = (await findBench(db, bench ?? 0))?.doc;
    // The second of the two, not the first that is like it; and the first of the new file.
    expect([doc?.reading, doc?.ladder.setAside.records, second.lost]).toEqual([
      second.reading,
      [2, 3],
      0,
    ]);
    const { lost } = await takeOut({
      task: 'takeOut',
      database: path.join(folder, 'loft.db'),
      limitBytes: 1e9,
      listId,
      reading: second.reading,
      part: 0,
    });
    const after = (await findBench(db, bench ?? 0))?.doc;
    expect([after?.ladder.setAside.records, lost]).toEqual([[1], 1]);
  });

  it('takes no other columns, and nothing that was compared with a reading before', async () => {
    const first = await send('jan.csv', JANUARY);
    const { listId } = first;
    const other = send('x.csv', 'job,hours\n1,2\n', { listId, addTo: first.reading });
    await expect(other).rejects.toThrow(AddRefused);
    const unit: Recipe = {
      ...recipe,
      columns: recipe.columns.map((c) => (c.id === 'hours' ? { ...c, unit: 'min' } : c)),
    };
    const inMinutes = send('x.csv', march, { listId, addTo: first.reading }, [], unit);
    await expect(inMinutes).rejects.toThrow('hours is not the same column');
    await send('new.csv', JANUARY, { listId, addTo: null }, [], recipe);
    const late = send('feb.csv', february, { listId, addTo: first.reading }, [], recipe);
    await expect(late).rejects.toThrow('The list was refreshed meanwhile.');
    expect((await readingsOf(db, listId)).length).toBe(2);
  });

  it('every reading has a stamp of its own', async () => {
    const first = await send('jan.csv', JANUARY);
    const second = await send('jan.csv', JANUARY, { listId: first.listId, addTo: null });
    const stamps = [await stampOf(db, first.reading), await stampOf(db, second.reading)];
    expect(new Set(stamps).size).toBe(2);
    expect(stamps.every((stamp) => stamp && stamp.length > 30)).toBe(true);
  });
});

describe('where records go when files are taken out', () => {
  const part = (records: number, chunks: number) => ({
    fileName: 'x',
    readAt: '',
    records,
    chunks,
    doubts: [],
  });
  const of = { id: 1, parts: [part(3, 1), part(2, 1), part(4, 2)] };

  it('those behind move up, those of the file are gone', () => {
    const follow = followParts({ of, without: 1 });
    expect([1, 3, 4, 5, 6, 9, 10].map(follow)).toEqual([1, 3, null, null, 4, 7, null]);
    expect([1, 9].map(followParts({ of }))).toEqual([1, 9]);
  });

  it('a bench whose totals are set aside keeps them, and takes those of the new file', () => {
    const table = (extra: readonly [string, number][]): Table => {
      const all: [string, number][] = [['a', 1], ['b', 2], ['Total', 3], ...extra];
      return {
        length: all.length,
        columns: [
          textColumn(
            'k',
            all.map(([k]) => k),
          ),
          scalarColumn(
            'n',
            'number',
            all.map(([, n]) => n),
          ),
        ],
      };
    };
    const doc = newBench(table([]), 1, [3]);
    const to = table([
      ['c', 4],
      ['d', 5],
      ['Total', 9],
    ]);
    const { doc: moved } = finish(moveBench(doc, table([]), to, 2, [6], (n) => n));
    expect(moved.ladder.setAside.records).toEqual([3, 6]);
    // Where those of the new file count, they count.
    const counted = finish(moveBench(doc, table([]), to, 2, [], (n) => n));
    expect(counted.doc.ladder.setAside.records).toEqual([3]);
  });
});
