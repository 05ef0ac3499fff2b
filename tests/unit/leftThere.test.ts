import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import type { AskResult } from '$lib/core/ask/result';
import { AskRefused, BadAsk } from '$lib/core/errors';
import { declaredTable } from '$lib/core/read/decode/declared';
import { readTyped } from '$lib/core/read/decode/typed';
import { fullCell } from '$lib/core/table/cell';
import { textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { finish } from '$lib/core/task/task';
import { answerLeftThere, leftThere, type ListLeftThere } from '$lib/server/databases/leftThere';
import { postgresSource } from '$lib/server/databases/postgres';
import { sqliteSource } from '$lib/server/databases/sourceOf';
import { SPECS, table as once } from '../support/generated';
import { connected, hasPostgres, startPostgres, type PostgresServer } from '../support/postgres';

/*
 * A list that stays in its database against the same list copied from it: whatever is asked, cell by cell.
 */

/** Some records over and over, so that groups stand for several; texts that differ in case and by an outer space. */
const RECORDS = Array.from({ length: 600 }, (_, i) => {
  const cells = once.columns.map((column) => fullCell(column, (i * 7) % once.length) || null);
  // No text of blanks alone is a value, of a file or of a database.
  return cells.map((cell, c) =>
    c > 0 ? cell : i % 10 === 4 ? '  ' : cell === 'Ness' && i % 6 === 1 ? 'NESS' : cell,
  );
});
const number = (cell: string | null): number | null => (cell === null ? null : Number(cell));

const COMPUTED = [
  { name: 'Twice', expression: 'Delay * 2' },
  { name: 'Never asked', expression: 'Fares / NULLIF(Delay, 0)' },
  { name: 'Route in capitals', expression: 'UPPER(TRIM(Route))' },
];
const LADDERS = [
  {},
  {
    rungs: [
      {
        condition: {
          kind: 'leaf',
          column: 'Route',
          test: { test: 'is', values: ['Ness', 'Holm'] },
        },
      },
      {
        condition: {
          kind: 'leaf',
          column: 'Delay',
          not: true,
          test: { test: 'compare', op: 'gt', value: 24 },
        },
      },
    ],
    setAside: { records: [], kept: [], values: [{ column: 'Vessel', value: 'Auk' }] },
  },
  { rungs: [{ condition: { kind: 'expression', expression: 'Twice > 10 OR Route IS NULL' } }] },
];
const KINDS = [
  'ledger',
  'crosstab',
  'periods',
  'growth',
  'frequency',
  'conditional',
  'spread',
  'ranking',
  'contributions',
  'percentile',
] as const;

/** Figures to 10 digits, without what names single records. */
const told = ({ counts, tallies, prepared }: AskResult): unknown =>
  JSON.parse(
    JSON.stringify({ counts, tallies, prepared }, (key, value: unknown) =>
      key === 'values' && Array.isArray(value)
        ? // Spellings of one label, in whatever order they were met.
          value.toSorted()
        : key === 'warnings' && Array.isArray(value)
          ? value.filter((warning: { code?: string }) => warning.code !== 'rests')
          : // Runs are numbered as groups are met.
            ['marks', 'deviations', 'bound', 'run'].includes(key)
            ? undefined
            : typeof value === 'number'
              ? Number(value.toPrecision(10))
              : value,
    ),
  );

async function copied({ source, asked, recipe }: ListLeftThere): Promise<Table> {
  const { columns, parts } = await source.read(asked, Infinity);
  for await (const all of parts) return readTyped(declaredTable(all, columns), recipe).table;
  throw new Error('no records');
}

async function refusing<T>(work: () => T | Promise<T>): Promise<T | string> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof AskRefused || error instanceof BadAsk) return error.message;
    throw error;
  }
}

/** Whether it is said that the list has to be there as a whole. */
const needsWhole = (answer: AskResult | string): answer is string => typeof answer === 'string';

async function agree(list: ListLeftThere, table: Table, document: unknown): Promise<boolean> {
  const ask = readAsk(document);
  const { name, recipe } = list;
  const others = new Map<string, Table>();
  const left = await refusing(() => answerLeftThere(list, ask, others));
  const own = await refusing(() => finish(answerAsk({ name, table, recipe, others }, ask)).result);
  if (needsWhole(left)) return false;
  if (needsWhole(own)) throw new Error(`Answered though the copy says: ${own}`);
  expect(told(left)).toEqual(told(own));
  return true;
}

function everyKind(open: () => Promise<{ list: ListLeftThere; table: Table }>): void {
  for (const kind of KINDS)
    it(`${kind}: as of the list copied`, async () => {
      const { list, table } = await open();
      let compared = 0;
      await fc.assert(
        fc.asyncProperty(SPECS[kind], fc.constantFrom(...LADDERS), async (spec, ladder) => {
          // Records under groups are not at hand.
          const tally =
            kind === 'ledger' ? { ...Tally.parse(spec), records: false, sort: [] } : spec;
          if (await agree(list, table, { ladder, computed: COMPUTED, tallies: [tally] }))
            compared++;
        }),
        { numRuns: 20 },
      );
      expect(compared).toBeGreaterThan(1);
    });

  it('a made column, kept or added up, and every measure that parts are enough for', async () => {
    const { list, table } = await open();
    const measures = [
      ...[
        'sum',
        'mean',
        'sd',
        'min',
        'max',
        'values',
        'blanks',
        'unread',
        'median',
        'distinct',
      ].map((kind) => ({ kind, column: 'Fares' })),
      { kind: 'sum', column: 'Twice' },
      { kind: 'ratio', column: 'Fares', other: 'Delay' },
      { kind: 'sd', column: 'Delay' },
    ];
    for (const groups of [
      [],
      [{ column: 'Route in capitals' }],
      [{ column: 'Vessel' }, { column: 'Day', period: 'month' }],
    ])
      for (const ladder of LADDERS)
        expect(
          await agree(list, table, {
            ladder,
            computed: COMPUTED,
            tallies: [{ kind: 'ledger', groups, measures }],
          }),
        ).toBe(true);
  });

  it('columns of another list, by its keys; who finds none is counted in records', async () => {
    const { list, table } = await open();
    const crews: Table = {
      length: 2,
      columns: [textColumn('Vessel', ['Tern', 'Auk']), textColumn('Crew', ['red', 'blue'])],
    };
    const others = new Map([['Crews', crews]]);
    const ask = readAsk({
      joins: [{ list: 'Crews', on: [{ column: 'Vessel' }], bring: [{ column: 'Crew' }] }],
      lists: { Crews: { file: 'crews.csv' } },
      tallies: [
        {
          kind: 'ledger',
          groups: [{ column: 'Crew' }],
          measures: [{ kind: 'mean', column: 'Fares' }],
        },
      ],
    });
    const { name, recipe } = list;
    const own = finish(answerAsk({ name, table, recipe, others }, ask)).result;
    expect(own.prepared[0].words).toContain('200 records of 600 records have no match');
    expect(told(await answerLeftThere(list, ask, others))).toEqual(told(own));
  });

  it('says what it needs the records for', async () => {
    const { list } = await open();
    const asked = (document: unknown): Promise<AskResult | string> =>
      refusing(() => answerLeftThere(list, readAsk(document), new Map()));
    const ledger = { kind: 'ledger', groups: [], measures: [{ kind: 'first', column: 'Fares' }] };
    expect(await asked({ tallies: [ledger] })).toContain('looks at single records');
    const measures = [{ kind: 'sum', column: 'Fares' }];
    expect(
      await asked({
        ladder: { setAside: { records: [3], kept: [], values: [] } },
        tallies: [{ kind: 'ledger', groups: [], measures }],
      }),
    ).toContain('named by their numbers');
    expect(
      await asked({ tallies: [{ kind: 'ledger', groups: [{ column: 'Pier' }], measures }] }),
    ).toContain('Pier');
  });
}

describe('a list left in a SQLite file', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-left-'));
  const file = path.join(folder, 'ferry.db');
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  let open: { list: ListLeftThere; table: Table };
  beforeAll(async () => {
    const db = new Sqlite(file);
    // What the column takes as the same is apart in the list.
    db.exec(
      'create table sailings (Route text collate nocase, Vessel text, Fares real, Delay integer, Day text)',
    );
    const insert = db.prepare('insert into sailings values (?, ?, ?, ?, ?)');
    for (const [route, vessel, fares, delay, day] of RECORDS)
      insert.run(route, vessel, number(fares), number(delay), day);
    db.close();
    const list = await leftThere(
      'Sailings',
      sqliteSource(file),
      { table: 'sailings' },
      { form: 'sqlite' },
    );
    open = { list, table: await copied(list) };
  });

  it('has the columns of the copy', () => {
    expect(open.list.columns.columns.map(({ name, type }) => [name, type])).toEqual([
      ['Route', 'text'],
      ['Vessel', 'text'],
      ['Fares', 'number'],
      ['Delay', 'number'],
      ['Day', 'date'],
    ]);
    expect(open.table.length).toBe(RECORDS.length);
  });
  everyKind(() => Promise.resolve(open));
});

describe.runIf(hasPostgres)('a list left in a PostgreSQL database', () => {
  let server: PostgresServer;
  let open: { list: ListLeftThere; table: Table };
  beforeAll(async () => {
    server = await startPostgres();
    await server.owner.query('CREATE DATABASE ferry');
    const ferry = await connected(server.port, 'ferry');
    await ferry.query(
      'CREATE TABLE sailings ("Route" text, "Vessel" varchar(20), "Fares" numeric(12,2), "Delay" float8, "Day" date, "Odd" float8, "Small" int2, "Many" int8, "Money" money, "Real" float4, "Wide" numeric, "Ticket" int8)',
    );
    for (const [k, [route, vessel, fares, delay, day]] of RECORDS.entries())
      await ferry.query(
        'INSERT INTO sailings VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)',
        [
          route,
          vessel,
          fares,
          delay,
          day,
          ['NaN', 'Infinity', '-Infinity', null, '0.1', '2.5'][k % 6],
          k % 40,
          // Under 15 % are past what a double holds.
          k % 20 ? 3_000_000_000 * (k % 7) : '9007199254740993',
          `${k % 9}.25`,
          `${(k % 10) / 10}`,
          k % 40 === 3 ? 'NaN' : ['7', '12345.678901', null, '-0.5'][k % 4],
          `900719925474099${k % 5}`,
        ],
      );
    await ferry.end();
    const source = postgresSource(
      {
        kind: 'postgres',
        host: '127.0.0.1',
        port: server.port,
        database: 'ferry',
        user: 'owner',
        password: { env: 'OWN' },
        tls: false,
        seconds: 60,
      },
      { OWN: server.password },
    );
    const list = await leftThere(
      'Sailings',
      source,
      { query: 'SELECT * FROM sailings' },
      { form: 'postgres', connection: 'ferry' },
    );
    open = { list, table: await copied(list) };
  }, 60_000);
  afterAll(async () => await server.stop());

  everyKind(() => Promise.resolve(open));

  it('numbers too long for a double keep their digits as a key', async () => {
    const ask = { tallies: [{ kind: 'ledger', groups: [{ column: 'Ticket' }], measures: [] }] };
    expect(await agree(open.list, open.table, ask)).toBe(true);
    const { tallies } = await answerLeftThere(open.list, readAsk(ask), new Map());
    expect(JSON.stringify(tallies)).toContain('9007199254740993');
  });

  it('numbers of every type it has; what is no number is unread, as in the copy', async () => {
    const measures = ['sum', 'min', 'max', 'sd', 'values', 'blanks', 'unread'].flatMap((kind) =>
      ['Odd', 'Small', 'Many', 'Money', 'Real', 'Wide'].map((column) => ({ kind, column })),
    );
    expect(
      await agree(open.list, open.table, {
        tallies: [{ kind: 'ledger', groups: [{ column: 'Vessel' }], measures }],
      }),
    ).toBe(true);
  });
});
