import { BadConfig, StaleRevision, StorageFull } from '$lib/server/errors';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { VERSION } from '$lib/core/ask/version';
import { newBench } from '$lib/core/bench/newBench';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import { readConfig } from '$lib/server/config';
import { isCrossSiteWrite, isForeignHost } from '$lib/server/security/crossSite';
import { PassphraseGate } from '$lib/server/security/passphrase';
import { findBench, findState, keepState, saveBench } from '$lib/server/storage/benches';
import { migrate, openDatabase, writing, type Database } from '$lib/server/storage/database';
import { shelf } from '$lib/server/storage/lists';
import { findReading, storeReading } from '$lib/server/storage/readings';
import { judgeImport } from '../../scripts/lint/import-direction.js';
import { readText } from '../support/demo';

const { recipe, reading } = readText('route,n\nHolm,1\nNess,2\n');
const given = (docFor = (id: number): string => JSON.stringify(newBench(reading.table, id))) => ({
  listId: null,
  listName: 'List',
  fileName: 'x.csv',
  records: 2,
  recipe,
  doubts: [],
  bench: { name: 'Bench 1', docFor },
});

/** Stores a reading in a transaction of its own. */
const stored = (
  db: Database,
  what: Parameters<typeof storeReading>[1],
  chunks: Iterable<Uint8Array>,
): ReturnType<typeof storeReading> =>
  writing(() => db.transaction().execute((tx) => storeReading(tx, what, chunks)));

/** A bench as the version before wrote it. */
const VERSION_1 = {
  version: 1,
  reading: 1,
  ladder: {
    rungs: [
      {
        id: 'r1',
        on: true,
        condition: {
          kind: 'leaf',
          column: 'n',
          not: false,
          test: { test: 'compare', op: 'ge', value: 1 },
        },
      },
    ],
    setAside: { records: [1], values: [], kept: [] },
  },
  scopes: [{ name: 'all', rungs: [] }],
  lead: 'n',
  tallies: [
    {
      id: 'ledger',
      kind: 'ledger',
      spec: {
        groups: [{ column: 'route', loose: true, order: { by: 'hand', labels: ['Ness', 'Holm'] } }],
        sort: [],
        measures: [
          { kind: 'percentile', column: 'n', p: 0.9 },
          { kind: 'trimmedMean', column: 'n', p: 0.05 },
          { kind: 'sum', column: 'n' },
        ],
        totals: 'above',
      },
      view: { showDown: 1, turned: ['["Ness"]'], columns: [], fixed: 1 },
    },
  ],
  open: 'ledger',
  orders: { route: ['Ness', 'Holm'] },
  formats: {},
  corrections: [{ record: 0, column: 'n', text: '3', was: '1' }],
};

let folder: string;
let file: string;
const opened: Database[] = [];
const open = (limit = 0): Database => {
  const db = openDatabase(file, limit);
  opened.push(db);
  return db;
};
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-unit-'));
  file = path.join(folder, 'data.sqlite');
});
afterEach(async () => {
  for (const db of opened.splice(0)) await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

/** A list with a bench of version 1 as revision 7, in a store of an earlier version. */
function storeVersion1(): InstanceType<typeof Sqlite> {
  const raw = new Sqlite(file);
  raw.prepare("insert into lists (name, created_at) values ('Old', '2026-01-01')").run();
  raw
    .prepare(
      "insert into benches (list_id, name, revision, doc, saved_at) values (1, 'B', 7, ?, '2026-01-01')",
    )
    .run(JSON.stringify(VERSION_1));
  return raw;
}

describe('migrations', () => {
  it('run from an empty file, and once', async () => {
    const db = open();
    expect(await migrate(db)).toEqual([
      '0001-lists',
      '0002-bench-states',
      '0003-bench-version-2',
      '0004-accepted-intakes',
      '0005-made-lists',
      '0006-words-of-doubts',
      '0007-parts-of-readings',
    ]);
    expect(await migrate(db)).toEqual([]);
  });

  it('run from the version before, with what was there', async () => {
    const old = open();
    await migrate(old, '0001-lists');
    const raw = storeVersion1();
    raw.close();
    expect(await migrate(old)).toEqual([
      '0002-bench-states',
      '0003-bench-version-2',
      '0004-accepted-intakes',
      '0005-made-lists',
      '0006-words-of-doubts',
      '0007-parts-of-readings',
    ]);
    expect((await findState(old, 1, 7))?.doc).toMatchObject({ reading: 1 });
  });

  it('keep the words of doubts that were stored under another name', async () => {
    const old = open();
    await migrate(old, '0005-made-lists');
    const raw = new Sqlite(file);
    raw.prepare("insert into lists (name, created_at) values ('Old', '2026-01-01')").run();
    const doubts = [
      { kind: 'farDates', count: 2, places: [], says: 'Two dates lie far off.', asks: false },
    ];
    raw
      .prepare(
        "insert into readings (list_id, number, file_name, read_at, records, recipe, doubts) values (1, 1, 'old.csv', '2026-01-01', 9, ?, ?)",
      )
      .run(JSON.stringify(recipe), JSON.stringify(doubts));
    raw.close();
    expect(await migrate(old)).toEqual(['0006-words-of-doubts', '0007-parts-of-readings']);
    expect((await findReading(old, 1))?.doubts).toEqual([
      { kind: 'farDates', count: 2, places: [], words: 'Two dates lie far off.', asks: false },
    ]);
  });

  it('bring benches, kept states and links of version 1 over, with all they say', async () => {
    const old = open();
    await migrate(old, '0002-bench-states');
    const raw = storeVersion1();
    const state = raw.prepare(
      "insert into bench_states (bench_id, revision, doc, saved_at, kept) values (1, ?, ?, '2026-01-01', 1)",
    );
    state.run(7, JSON.stringify(VERSION_1));
    state.run(3, 'no document at all');
    raw.close();
    expect(await migrate(old)).toEqual([
      '0003-bench-version-2',
      '0004-accepted-intakes',
      '0005-made-lists',
      '0006-words-of-doubts',
      '0007-parts-of-readings',
    ]);
    const stored = new Sqlite(file).prepare('select doc from benches').get() as { doc: string };
    expect(JSON.parse(stored.doc)).toMatchObject({ version: VERSION });
    expect((await findBench(old, 1))?.doc).toEqual({
      version: VERSION,
      bands: [],
      known: [],
      cited: [],
      report: { title: '', intro: '', paper: 'a4', lying: false },
      reading: 1,
      lists: {},
      // Records counted from 0.
      corrections: [{ ...VERSION_1.corrections[0], record: 1 }],
      reshape: [],
      joins: [],
      computed: [],
      ladder: { ...VERSION_1.ladder, setAside: { records: [2], values: [], kept: [] } },
      sort: [],
      scopes: VERSION_1.scopes,
      lead: 'n',
      orders: { route: ['Ness', 'Holm'] },
      formats: {},
      tray: [
        {
          id: 'ledger',
          tally: {
            kind: 'ledger',
            scope: 'counted',
            records: false,
            groups: VERSION_1.tallies[0].spec.groups,
            sort: [],
            measures: [
              { kind: 'percentile', column: 'n', percent: 90 },
              { kind: 'trimmedMean', column: 'n', percent: 5 },
              { kind: 'sum', column: 'n' },
            ],
          },
          view: { showDown: 1, turned: ['["Ness"]'], totals: 'above', columns: [], fixed: 1 },
          note: '',
        },
      ],
      open: 'ledger',
    });
    expect((await findState(old, 1, 7))?.doc).toMatchObject({ version: VERSION, lead: 'n' });
    // What cannot be read is left as it was, and stands in nobody's way.
    await expect(findState(old, 1, 3)).rejects.toThrow();
  });
});

describe('storage', () => {
  it('keeps a reading whole, or not at all', async () => {
    const db = open();
    await migrate(db);
    const chunk = encodeChunk(reading.table, 0);
    await stored(db, given(), [chunk]);
    expect(await findReading(db, 1)).toMatchObject({ records: 2, chunks: 1, number: 1 });
    function* failing(): Generator<Uint8Array> {
      yield chunk;
      throw new Error('the sender went away');
    }
    await expect(stored(db, given(), failing())).rejects.toThrow('went away');
    expect(await shelf(db)).toHaveLength(1);
  });

  it('numbers the readings of a list', async () => {
    const db = open();
    await migrate(db);
    const { listId } = await stored(db, given(), [encodeChunk(reading.table, 0)]);
    await stored(db, { ...given(), listId, bench: null }, [encodeChunk(reading.table, 0)]);
    expect(await shelf(db)).toMatchObject([{ readings: 2, benches: [{ id: 1 }] }]);
    expect((await findReading(db, 2))?.number).toBe(2);
  });

  it('refuses a save that does not follow the newest, and gives that back', async () => {
    const db = open();
    await migrate(db);
    await stored(db, given(), [encodeChunk(reading.table, 0)]);
    const doc = (await findBench(db, 1))?.doc;
    if (!doc) throw new Error('no bench');
    await saveBench(db, 1, 1, { ...doc, lead: 'n' });
    const stale = await saveBench(db, 1, 1, { ...doc, lead: null }).catch((e: unknown) => e);
    expect(stale).toBeInstanceOf(StaleRevision);
    expect((stale as StaleRevision).newest).toMatchObject({ revision: 2, doc: { lead: 'n' } });
    expect(await saveBench(db, 99, 1, doc)).toBeUndefined();
  });

  it('the same save sent again is no conflict, and makes no other revision', async () => {
    const db = open();
    await migrate(db);
    await stored(db, given(), [encodeChunk(reading.table, 0)]);
    const doc = (await findBench(db, 1))?.doc;
    if (!doc) throw new Error('no bench');
    const mine = { ...doc, lead: null };
    const first = await saveBench(db, 1, 1, mine);
    expect(await saveBench(db, 1, 1, mine)).toEqual(first);
    expect((await findBench(db, 1))?.revision).toBe(2);
    // Nor is it one once somebody else has saved after it; what follows it is.
    await saveBench(db, 1, 2, doc);
    expect(await saveBench(db, 1, 1, mine)).toMatchObject({ revision: 2 });
    await expect(saveBench(db, 1, 2, mine)).rejects.toBeInstanceOf(StaleRevision);
  });

  it('keeps a state that a link was made to, and lets old others go', async () => {
    const db = open();
    await migrate(db);
    await stored(db, given(), [encodeChunk(reading.table, 0)]);
    const doc = (await findBench(db, 1))?.doc;
    if (!doc) throw new Error('no bench');
    expect(await keepState(db, 1)).toBe(1);
    for (let r = 1; r <= 130; r++) await saveBench(db, 1, r, doc);
    expect(await findState(db, 1, 1)).toBeDefined();
    expect(await findState(db, 1, 2)).toBeUndefined();
    expect(await findState(db, 1, 131)).toBeDefined();
  });

  it('says when there is no room left, and keeps what was there', async () => {
    const small = open(400 * 1024);
    await migrate(small);
    await stored(small, given(), [encodeChunk(reading.table, 0)]);
    await expect(stored(small, given(), [new Uint8Array(1024 * 1024)])).rejects.toBeInstanceOf(
      StorageFull,
    );
    expect(await shelf(small)).toHaveLength(1);
  });

  it('waits for another connection that writes', async () => {
    const db = open();
    await migrate(db);
    const other = new Sqlite(file);
    other.exec('begin immediate');
    setTimeout(() => other.exec('commit'), 120);
    await stored(db, given(), [encodeChunk(reading.table, 0)]);
    expect(await shelf(db)).toHaveLength(1);
    other.close();
  });
});

describe('settings', () => {
  it('have safe defaults', () => {
    expect(readConfig({})).toMatchObject({
      host: '127.0.0.1',
      port: 4180,
      loopback: true,
      logLevel: 'info',
      passphrase: '',
    });
  });
  it.each([
    [
      { TALLY_LOFT_PORT: 'x' },
      'TALLY_LOFT_PORT must be a whole number from 0 to 65535 (it is “x”)',
    ],
    [{ TALLY_LOFT_LOG: 'loud' }, 'TALLY_LOFT_LOG must be silent'],
    [{ TALLY_LOFT_UPLOAD_MB: '0' }, 'TALLY_LOFT_UPLOAD_MB'],
    [{ TALLY_LOFT_HOST: '0.0.0.0' }, 'TALLY_LOFT_PASSPHRASE must be set'],
    [{ TALLY_LOFT_HOST: '0.0.0.0', TALLY_LOFT_PASSPHRASE: 'short' }, '8 characters'],
  ])('%j is refused in words', (env, words) => {
    expect(() => readConfig(env)).toThrow(BadConfig);
    expect(() => readConfig(env)).toThrow(words);
  });
});

describe('trust', () => {
  it('tells a write of another site', () => {
    const judge = (method: string, headers: Record<string, string>): boolean =>
      isCrossSiteWrite(method, new Headers(headers), '127.0.0.1:4180');
    expect(judge('GET', { 'sec-fetch-site': 'cross-site' })).toBe(false);
    expect(judge('POST', { 'sec-fetch-site': 'cross-site' })).toBe(true);
    expect(
      judge('POST', { 'sec-fetch-site': 'same-origin', origin: 'http://127.0.0.1:4180' }),
    ).toBe(false);
    expect(judge('PUT', { origin: 'http://127.0.0.1:9999' })).toBe(true);
    expect(judge('PUT', { origin: 'null' })).toBe(true);
    expect(isForeignHost('elsewhere.example:4180')).toBe(true);
    expect(isForeignHost('localhost:4180')).toBe(false);
    expect(isForeignHost(null)).toBe(true);
  });

  it('sessions hold until their time, and cannot be made up', async () => {
    const gate = new PassphraseGate('tide and ledger');
    expect(await gate.check('tide and ledger', 'a')).toBe('right');
    expect(await gate.check('other', 'a')).toBe('wrong');
    const token = gate.session(1000);
    expect(gate.admits(token, 2000)).toBe(true);
    expect(gate.admits(token, 1000 + 15 * 86_400_000)).toBe(false);
    expect(gate.admits(`9${token}`, 2000)).toBe(false);
    expect(gate.admits(new PassphraseGate('tide and ledger').session(), Date.now())).toBe(false);
    expect(gate.admits(undefined)).toBe(false);
  });

  it('too many guesses of one address are told that they were not looked at', async () => {
    const gate = new PassphraseGate('tide and ledger', 1);
    const many = await Promise.all(Array.from({ length: 30 }, () => gate.check('x', 'a')));
    expect(many.filter((heard) => heard === 'wrong')).toHaveLength(20);
    expect(many.filter((heard) => heard === 'unheard')).toHaveLength(10);
  });

  it('the right one waits behind no wrong one, and is never told that it is wrong', async () => {
    // From the fourth on, wrong guesses of this gate are answered after an hour.
    const gate = new PassphraseGate('tide and ledger', 3_600_000);
    const guess = (count: number): void => {
      for (let n = 0; n < count; n++) void gate.check('x', 'a');
    };
    guess(10);
    expect(await gate.check('tide and ledger', 'a')).toBe('right');
    expect(await gate.check('tide and ledger', 'b')).toBe('right');
    guess(40);
    expect(await gate.check('tide and ledger', 'a')).toBe('unheard');
    expect(await gate.check('tide and ledger', 'b')).toBe('right');
  });
});

describe('the direction of imports', () => {
  const root = new URL('../../', import.meta.url).pathname;
  const judge = (from: string, to: string): string | null => judgeImport(`${root}${from}`, to);
  it('is downward only', () => {
    expect(judge('src/lib/core/table/table.ts', '../measure/moments')).toContain('must not import');
    expect(judge('src/lib/core/measure/moments.ts', '../table/table')).toBeNull();
    expect(judge('src/lib/core/selection/ladder.ts', '$lib/server/log')).toContain(
      'must not import',
    );
    expect(judge('src/lib/ui/bench/Bench.svelte', '$lib/server/log')).toContain(
      'never imports the server',
    );
    expect(judge('src/lib/core/table/table.ts', 'node:fs')).toContain('takes nothing from');
    expect(judge('src/lib/core/table/table.ts', 'svelte')).toContain('takes nothing from');
    expect(judge('src/lib/core/table/table.ts', 'zod')).toBeNull();
    expect(judge('src/lib/server/log.ts', 'pino')).toBeNull();
  });
});
