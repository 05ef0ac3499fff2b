import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { addRung, removeRung } from '$lib/core/bench/edits';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { originWords, type Making } from '$lib/core/bench/origin';
import { fullCell } from '$lib/core/table/cell';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import type { Table } from '$lib/core/table/table';
import { freshen, makeOf } from '$lib/server/derived/freshen';
import { deleteBench, findBench, saveBench } from '$lib/server/storage/benches';
import {
  databasePath,
  migrate,
  openDatabase,
  writing,
  type Database,
} from '$lib/server/storage/database';
import { findList, shelf } from '$lib/server/storage/lists';
import { findOrigin, followersOf } from '$lib/server/storage/madeLists';
import { storeReading } from '$lib/server/storage/readings';
import { loadTable } from '$lib/server/thread/load';
import { make } from '$lib/server/thread/perform/make';
import { move } from '$lib/server/thread/perform/move';
import { ThreadTask } from '$lib/server/thread/tasks';
import { onShelf, type ShelfList } from '$lib/ui/shelf/shelfList';
import { readText } from '../support/demo';

const first = readText('day,North,South\n2025-01-01,1,2\n2025-01-02,3,\n');
const second = readText('day,North,South\n2025-01-01,1,2\n2025-01-02,3,4\n2025-01-03,5,6\n');

let folder: string;
let db: Database;
const app = () => ({
  db,
  config: { dataFolder: folder, storageBytes: 0 },
  thread: {
    perform: (task: ThreadTask): Promise<unknown> => {
      const given = ThreadTask.parse(task);
      if (given.task === 'make') return make(given);
      if (given.task === 'move') return move(given);
      throw new Error(given.task);
    },
  },
});

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-made-'));
  db = openDatabase(databasePath(folder));
  await migrate(db);
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

async function read(from: ReturnType<typeof readText>, listId: number | null = null) {
  const { table } = from.reading;
  const given = {
    listId,
    listName: 'Kiosks',
    fileName: 'kiosks.csv',
    records: table.length,
    recipe: from.recipe,
    doubts: [],
    bench:
      listId === null
        ? { name: 'Bench 1', docFor: (id: number) => JSON.stringify(newBench(table, id)) }
        : null,
  };
  return writing(() =>
    db.transaction().execute((tx) => storeReading(tx, given, [encodeChunk(table, 0)])),
  );
}

/** A newer file, with the benches of the list brought to it, as an intake does. */
async function refresh(listId: number): Promise<void> {
  const { reading } = await read(second, listId);
  await app().thread.perform({
    task: 'move',
    database: databasePath(folder),
    limitBytes: 0,
    listId,
    reading,
  });
}

async function kiosks(): Promise<{ listId: number; bench: number }> {
  const { listId, bench } = await read(first);
  return { listId, bench: bench ?? 0 };
}

const cells = ({ columns, length }: Table): string[][] => [
  columns.map((c) => c.name),
  ...Array.from({ length }, (_, i) => columns.map((c) => fullCell(c, i))),
];
async function answeredOn(listId: number): Promise<{ table: Table; reading: number }> {
  const reading = (await findList(db, listId))?.current_reading ?? 0;
  return { table: (await loadTable(db, reading)).table, reading };
}
async function change(bench: number, edit: (doc: Bench) => Bench): Promise<void> {
  const now = await findBench(db, bench);
  if (now) await saveBench(db, bench, now.revision, edit(now.doc));
}

const STACK: Making = {
  of: 'records',
  records: 'all',
  reshape: [
    { do: 'stack', columns: ['north', 'south'], name: 'Kiosk', value: 'Sales', dropBlanks: true },
  ],
};
const SALES: Making = {
  of: 'tally',
  table: 'main',
  tally: {
    kind: 'ledger',
    scope: 'counted',
    groups: [{ column: 'Kiosk', loose: false, order: { by: 'label', descending: false } }],
    sort: [],
    measures: [{ kind: 'sum', column: 'Sales' }],
    records: false,
  },
};

describe('a list made of another', () => {
  it('holds the stacked records, with what they are said of', async () => {
    const { bench } = await kiosks();
    const made = await makeOf(app(), 'Kiosk sales', { bench, make: STACK, frozen: null });
    expect(cells((await answeredOn(made?.listId ?? 0)).table)).toEqual([
      ['day', 'Kiosk', 'Sales'],
      ['2025-01-01', 'North', '1'],
      ['2025-01-01', 'South', '2'],
      ['2025-01-02', 'North', '3'],
    ]);
    const [list] = (await shelf(db)).filter(({ name }) => name === 'Kiosk sales');
    expect(list.fileName).toBe('All records, 2 columns stacked as Kiosk and Sales.');
    expect(list.origin && originWords(list.origin)).toBe('follows Kiosks, Bench 1');
    expect((await shelf(db)).find(({ name }) => name === 'Kiosks')?.feeds).toEqual(['Kiosk sales']);
  });

  it('follows a new reading of its source when it is looked at; a frozen one stays', async () => {
    const { listId, bench } = await kiosks();
    const linked = await makeOf(app(), 'Linked', { bench, make: STACK, frozen: null });
    const frozen = await makeOf(app(), 'Frozen', { bench, make: STACK, frozen: '2026-11-26' });
    await refresh(listId);
    for (const made of [linked, frozen]) await freshen(app(), made?.listId ?? 0);
    const now = await answeredOn(linked?.listId ?? 0);
    expect(now.table.length).toBe(6);
    expect(now.reading).not.toBe(linked?.reading);
    // Its benches came along to the new reading.
    expect((await findBench(db, linked?.bench ?? 0))?.doc.reading).toBe(now.reading);
    expect((await answeredOn(frozen?.listId ?? 0)).table.length).toBe(3);
  });

  it('where nothing changed, or what changed makes no difference, keeps its reading', async () => {
    const { bench } = await kiosks();
    const made = await makeOf(app(), 'Linked', { bench, make: STACK, frozen: null });
    const listId = made?.listId ?? 0;
    await freshen(app(), listId);
    expect((await answeredOn(listId)).reading).toBe(made?.reading);
    // All records are taken: a step of What counts makes no difference to them.
    await change(bench, (doc) =>
      addRung(doc, {
        kind: 'leaf',
        column: 'north',
        not: false,
        test: { test: 'compare', op: 'ge', value: 3 },
      }),
    );
    await freshen(app(), listId);
    expect((await answeredOn(listId)).reading).toBe(made?.reading);
  });

  it('follows What counts where the counted records were taken', async () => {
    const { bench } = await kiosks();
    const make: Making = { ...STACK, records: 'counted' };
    const made = await makeOf(app(), 'Counted', { bench, make, frozen: null });
    const listId = made?.listId ?? 0;
    const count = async (): Promise<number> => {
      await freshen(app(), listId);
      return (await answeredOn(listId)).table.length;
    };
    expect(await count()).toBe(3);
    await change(bench, (doc) =>
      addRung(doc, {
        kind: 'leaf',
        column: 'north',
        not: false,
        test: { test: 'compare', op: 'ge', value: 3 },
      }),
    );
    expect(await count()).toBe(1);
    await change(bench, (doc) => removeRung(doc, doc.ladder.rungs[0].id));
    expect(await count()).toBe(3);
  });

  it('a chain is made in its order: sums of stacked records follow the file', async () => {
    const { listId, bench } = await kiosks();
    const stacked = await makeOf(app(), 'Stacked', { bench, make: STACK, frozen: null });
    const sales = await makeOf(app(), 'Sales', {
      bench: stacked?.bench ?? 0,
      make: SALES,
      frozen: null,
    });
    const now = async (): Promise<string[][]> => {
      await freshen(app(), sales?.listId ?? 0);
      return cells((await answeredOn(sales?.listId ?? 0)).table);
    };
    expect(await now()).toEqual([
      ['Kiosk', 'Records', 'sum of Sales'],
      ['North', '2', '4'],
      ['South', '1', '2'],
    ]);
    await refresh(listId);
    expect(await now()).toEqual([
      ['Kiosk', 'Records', 'sum of Sales'],
      ['North', '3', '9'],
      ['South', '3', '12'],
    ]);
  });

  it('a circle is named, and the list stays as it was', async () => {
    const { bench } = await kiosks();
    const made = await makeOf(app(), 'Linked', { bench, make: STACK, frozen: null });
    const listId = made?.listId ?? 0;
    expect([...(await followersOf(db, bench))]).toEqual([listId]);
    await change(bench, (doc) => ({
      ...doc,
      lists: { Linked: { list: listId, table: 'main' } },
    }));
    await freshen(app(), listId);
    expect((await findOrigin(db, listId))?.fault).toMatch(
      /^It follows itself: “Linked” follows “Kiosks”, Bench 1, which looks at “Linked”\./,
    );
    expect((await answeredOn(listId)).reading).toBe(made?.reading);
    await change(bench, (doc) => ({ ...doc, lists: {} }));
    await freshen(app(), listId);
    expect((await findOrigin(db, listId))?.fault).toBeNull();
  });

  it('says when the bench that it follows is gone, or no longer fits, and stays as it was', async () => {
    const { listId: source, bench } = await kiosks();
    const made = await makeOf(app(), 'Linked', { bench, make: STACK, frozen: null });
    const listId = made?.listId ?? 0;
    const other = await makeOf(app(), 'Other', {
      bench: made?.bench ?? 0,
      make: STACK,
      frozen: null,
    }).catch((error: unknown) => String(error));
    expect(other).toMatch(/no column “north”/);
    await deleteBench(db, bench);
    await freshen(app(), listId);
    expect((await findOrigin(db, listId))?.fault).toBe(
      'The bench that it follows is gone. It stays as it was.',
    );
    expect((await answeredOn(listId)).table.length).toBe(3);
    expect(await makeOf(app(), 'None', { bench, make: STACK, frozen: null })).toBeNull();
    expect((await shelf(db)).find(({ id }) => id === source)?.feeds).toEqual([]);
  });

  it('what fails in its making keeps no page from opening; it is tried again', async () => {
    const { listId: source, bench } = await kiosks();
    const made = await makeOf(app(), 'Linked', { bench, make: STACK, frozen: null });
    const listId = made?.listId ?? 0;
    await refresh(source);
    const failing = {
      ...app(),
      thread: { perform: () => Promise.reject(new Error('The disk is gone.')) },
    };
    await freshen(failing, listId);
    expect((await findOrigin(db, listId))?.fault).toBe('The disk is gone. It stays as it was.');
    expect((await answeredOn(listId)).table.length).toBe(3);
    await freshen(app(), listId);
    expect((await findOrigin(db, listId))?.fault).toBeNull();
    expect((await answeredOn(listId)).table.length).toBe(6);
  });
});

describe('the shelf', () => {
  const list = (
    name: string,
    records: number,
    readAt: string,
    feeds: string[] = [],
  ): ShelfList => ({
    id: records,
    name,
    records,
    readAt,
    fileName: `${name}.csv`,
    readings: 1,
    benches: [{ id: 1, name: 'Bench 1', savedAt: readAt }],
    origin: null,
    feeds,
  });
  const lists = [
    list('Route 10', 5, '2026-01-02'),
    list('Route 9', 50, '2026-01-03', ['Fares']),
    list('Vessels', 9, '2026-01-01'),
  ];
  const names = (...given: [string, Parameters<typeof onShelf>[2], boolean]): string[] =>
    onShelf(lists, ...given).map(({ name }) => name);

  it('finds lists by their words and by what they feed, and sorts them', () => {
    expect(names('route', 'name', false)).toEqual(['Route 9', 'Route 10']);
    expect(names('FARES', 'name', false)).toEqual(['Route 9']);
    expect(names('', 'records', true)).toEqual(['Route 9', 'Vessels', 'Route 10']);
    expect(names('', 'readAt', true)).toEqual(['Route 9', 'Route 10', 'Vessels']);
    expect(names('none such', 'name', false)).toEqual([]);
  });
});
