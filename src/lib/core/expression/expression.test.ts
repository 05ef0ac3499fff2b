import { ExpressionError } from '../errors';
import Sqlite from 'better-sqlite3';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { has } from '../table/bitset';
import { fullCell } from '../table/cell';
import { dayNumber, DAY_MS } from '../table/calendar';
import { isMissing, scalarColumn, textColumn, type ScalarColumn } from '../table/column';
import type { Table } from '../table/table';
import { checkExpression } from './check';
import { computeColumn, conditionOutcome } from './evaluate';
import { namesIn } from './names';

const day = dayNumber(2024, 2, 29);
const table: Table = {
  length: 4,
  columns: [
    scalarColumn('boarded', 'number', [120, 0, null, -7]),
    scalarColumn('fares', 'number', [1553.25, 10, 5, 2.5], { decimals: 2 }),
    textColumn('route', ['Nessness', "Skerry's Bank", null, 'holm']),
    scalarColumn('sailed', 'date', [day, day + 1, null, dayNumber(2025, 12, 31)]),
    scalarColumn('left at', 'datetime', [day * DAY_MS + 29_400_000, null, 0, 1000]),
    scalarColumn('time', 'time', [29_400_000, 0, null, 86_399_000]),
    scalarColumn('cancelled', 'yesno', [0, 1, null, 0]),
  ],
};

/** Values of an expression as full texts; a none is null. */
function values(source: string): (string | null)[] {
  const column = finish(computeColumn(table, source, { id: 'x', name: 'x', unit: '' }));
  return Array.from({ length: table.length }, (_, i) =>
    isMissing(column, i) ? null : fullCell(column, i),
  );
}

describe('values of records beyond a block, four at a turn', () => {
  const by = 2.5;
  it('are what each record by itself comes to', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double(), fc.double()), { minLength: 1, maxLength: 2100 }),
        (pairs) => {
          const [a, b] = [0, 1].map((k) =>
            pairs.map((pair) => (Number.isFinite(pair[k]) ? pair[k] : null)),
          );
          const list: Table = {
            length: pairs.length,
            columns: [scalarColumn('a', 'number', a), scalarColumn('b', 'number', b)],
          };
          const none = (v: number): number => (Number.isFinite(v) ? v : NaN);
          for (const [source, value] of [
            ['a + b', (x: number, y: number) => x + y],
            ['a - b', (x: number, y: number) => x - y],
            ['a * b', (x: number, y: number) => x * y],
            ['a / b', (x: number, y: number) => x / y],
            ['a + 2.5', (x: number) => x + by],
            ['a * 2.5', (x: number) => x * by],
            ['a / 2.5', (x: number) => x / by],
            ['a / 0', () => NaN],
          ] as const) {
            const column = finish(
              computeColumn(list, source, { id: 'x', name: 'x', unit: '' }),
            ) as ScalarColumn;
            expect([...column.values]).toEqual(a.map((x, i) => none(value(x ?? NaN, b[i] ?? NaN))));
          }
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('what expressions come to', () => {
  it.each<[string, (string | null)[]]>([
    ['boarded + 1', ['121', '1', null, '-6']],
    // What no double holds is none, wherever it comes up.
    ['fares * 1e308 * 10', [null, null, null, null]],
    ['1 / (fares * 1e308 * 10)', [null, null, null, null]],
    [
      "CASE WHEN fares * 1e308 * 10 > 5 THEN 'more' ELSE 'unknown' END",
      ['unknown', 'unknown', 'unknown', 'unknown'],
    ],
    ['2 + 3 * 4 - 6 / 4', ['12.5', '12.5', '12.5', '12.5']],
    ['-boarded', ['-120', '0', null, '7']],
    ['fares / boarded', ['12.94375', null, null, '-0.35714285714285715']],
    ['fares / NULLIF(boarded, 0)', ['12.94375', null, null, '-0.35714285714285715']],
    ['COALESCE(boarded, 9)', ['120', '0', '9', '-7']],
    ["route || '!'", ['Nessness!', "Skerry's Bank!", null, 'holm!']],
    ["COALESCE(route, 'none') || ''''", ["Nessness'", "Skerry's Bank'", "none'", "holm'"]],
    ['UPPER(route)', ['NESSNESS', "SKERRY'S BANK", null, 'HOLM']],
    ['SUBSTRING(route FROM 2 FOR 3)', ['ess', 'ker', null, 'olm']],
    ['SUBSTRING(route FROM 0 FOR 3)', ['Ne', 'Sk', null, 'ho']],
    ['SUBSTRING(route FROM 5)', ['ness', "ry's Bank", null, null]],
    ["POSITION('s' IN route)", ['3', '8', null, '0']],
    ['CHAR_LENGTH(route)', ['8', '13', null, '4']],
    ["TRIM(LEADING 'N' FROM route)", ['essness', "Skerry's Bank", null, 'holm']],
    ["TRIM('  x ')", ['x', 'x', 'x', 'x']],
    [
      "CASE WHEN boarded > 0 THEN 'some' WHEN boarded = 0 THEN 'none' END",
      ['some', 'none', null, null],
    ],
    // Where several hold, the first is taken.
    ['CASE WHEN boarded > -9 THEN 1 WHEN boarded > -100 THEN 2 ELSE 3 END', ['1', '1', '3', '1']],
    ["CASE route WHEN 'holm' THEN 1 ELSE 2 END", ['2', '2', '2', '1']],
    ["route LIKE 'N%'", ['yes', 'no', null, 'no']],
    ["route LIKE '_olm'", ['no', 'no', null, 'yes']],
    ["route NOT LIKE '%''s%'", ['yes', 'no', null, 'yes']],
    ["'100%' LIKE '100!%' ESCAPE '!'", ['yes', 'yes', 'yes', 'yes']],
    ["route IN ('holm', 'Nessness')", ['yes', 'no', null, 'yes']],
    ['boarded IN (0, NULL)', [null, 'yes', null, null]],
    ['boarded NOT IN (0, 1)', ['yes', 'no', null, 'yes']],
    ['boarded BETWEEN -7 AND 0', ['no', 'yes', null, 'yes']],
    ['boarded IS NULL', ['no', 'no', 'yes', 'no']],
    ['boarded > 0 AND cancelled', ['no', 'no', null, 'no']],
    ['boarded > 0 OR cancelled', ['yes', 'yes', null, 'no']],
    ['NOT cancelled', ['yes', 'no', null, 'yes']],
    ['cancelled IS NOT TRUE', ['yes', 'no', 'yes', 'yes']],
    ['cancelled IS UNKNOWN', ['no', 'no', 'yes', 'no']],
    ['EXTRACT(YEAR FROM sailed)', ['2024', '2024', null, '2025']],
    ['EXTRACT(MINUTE FROM "left at")', ['10', null, '0', '0']],
    ['EXTRACT(SECOND FROM time)', ['0', '0', null, '59']],
    ["sailed + INTERVAL '1' YEAR", ['2025-02-28', '2025-03-01', null, '2026-12-31']],
    ["sailed - INTERVAL '1' MONTH", ['2024-01-29', '2024-02-01', null, '2025-11-30']],
    [
      "INTERVAL '36' HOUR + CAST(sailed AS TIMESTAMP)",
      ['2024-03-01T12:00', '2024-03-02T12:00', null, '2026-01-01T12:00'],
    ],
    ["time + INTERVAL '2' HOUR", ['10:10', '02:00', null, '01:59:59']],
    ["sailed - DATE '2024-02-01'", ['28', '29', null, '699']],
    ["(sailed - DATE '2024-01-31') MONTH", ['1', '1', null, '23']],
    ["(DATE '2020-02-29' - sailed) YEAR", ['-4', '-4', null, '-5']],
    ["(time - TIME '08:00') MINUTE", ['10', '-480', null, '959.9833333333333']],
    ["sailed > DATE '2024-02-29'", ['no', 'yes', null, 'yes']],
    ['"left at" >= sailed', ['yes', null, null, 'no']],
    ['ROUND(2.5)', ['3', '3', '3', '3']],
    ['ROUND(-1.005, 2)', ['-1.01', '-1.01', '-1.01', '-1.01']],
    ['ROUND(1250, -2)', ['1300', '1300', '1300', '1300']],
    ['MOD(boarded, 4)', ['0', '0', null, '-3']],
    ['SQRT(boarded)', ['10.954451150103322', '0', null, null]],
    ['LN(boarded) IS NULL', ['no', 'yes', 'yes', 'yes']],
    ['POWER(10, 400)', [null, null, null, null]],
    ['GREATEST(boarded, fares)', ['1553.25', '10', null, '2.5']],
    ["LEAST(route, 'Kettle')", ['Kettle', 'Kettle', null, 'holm']],
    ['FLOOR(-0.5) + CEILING(0.2)', ['0', '0', '0', '0']],
    ['CAST(fares AS INTEGER)', ['1553', '10', '5', '2']],
    ['CAST(fares AS NUMERIC(9,1))', ['1553.3', '10', '5', '2.5']],
    ["CAST('12 min' AS NUMERIC)", [null, null, null, null]],
    ["CAST(' 12.5 ' AS NUMERIC)", ['12.5', '12.5', '12.5', '12.5']],
    ['CAST(sailed AS VARCHAR)', ['2024-02-29', '2024-03-01', null, '2025-12-31']],
    ["CAST('2024-02-30' AS DATE)", [null, null, null, null]],
    ['CAST(cancelled AS INTEGER)', ['0', '1', null, '0']],
    ['CAST("left at" AS TIME)', ['08:10', null, '00:00', '00:00:01']],
    ['NULL', [null, null, null, null]],
    ['boarded -- how many\n + 1', ['121', '1', null, '-6']],
  ])('%s', (source, expected) => expect(values(source)).toEqual(expected));
});

describe('mistakes are shown at their place with a remedy', () => {
  it.each<[string, number, RegExp, RegExp]>([
    ['boraded + 1', 0, /no column “boraded”/, /“boarded”/],
    ['route + 1', 0, /Expected a number.*text/, /\|\|/],
    ['boarded +', 9, /ends too early/, /value belongs here/],
    ['boarded == 1', 8, /“==”/, /single =/],
    ['boarded != 1', 8, /“!=”/, /<>/],
    ["sailed > '2024-01-01'", 0, /cannot be compared/, /DATE '2024-01-01'/],
    ["boarded = '5'", 0, /cannot be compared/, /without quotes/],
    ['FLOR(boarded)', 0, /no function FLOR/, /FLOOR/],
    ['ROUND()', 0, /takes 1 or 2 values, not 0/, /ROUND\(fares, 2\)/],
    ["CASE WHEN boarded > 1 THEN 'a' ELSE 2 END", 36, /one type/, /CAST/],
    ['CASE boarded END', 13, /at least one WHEN/, /CASE WHEN/],
    ["'open", 0, /does not end/, /single quote/],
    ['EXTRACT(WEEK FROM sailed)', 8, /cannot be extracted/, /YEAR/],
    ['EXTRACT(HOUR FROM sailed)', 18, /no hour/, /YEAR, MONTH or DAY/],
    ["sailed + INTERVAL '2' HOUR", 9, /no hours/, /TIMESTAMP/],
    ['sailed + 3', 0, /Expected a number/, /INTERVAL/],
    ['boarded AND cancelled', 0, /condition belongs here/, /Compare/],
    ['(boarded + 1', 12, /\) was expected/, /bracket/],
    ['boarded fares', 8, /“fares” was not expected/, /operator/],
    ["DATE '2024-13-01'", 0, /not a date/, /2025-01-31/],
    ["route LIKE 'a!b' ESCAPE '!'", 24, /escape/, /ESCAPE/],
    ['CAST(boarded AS MONEY)', 16, /not a type/, /NUMERIC/],
    ["INTERVAL '1' DAY", 0, /only after/, /sailed_on/],
    [`${'('.repeat(300)}1${')'.repeat(300)}`, 200, /nested too deep/, /Split/],
  ])('%s', (source, at, fault, remedy) => {
    let error: unknown = null;
    try {
      checkExpression(source, table.columns);
    } catch (e) {
      error = e;
    }
    expect(error).toBeInstanceOf(ExpressionError);
    if (!(error instanceof ExpressionError)) return;
    expect(error.span.start).toBe(at);
    expect(error.fault).toMatch(fault);
    expect(error.remedy).toMatch(remedy);
  });

  it('never fails in another way, whatever is typed', () => {
    const pieces = [
      'boarded',
      'route',
      '"left at"',
      "'a'",
      '1',
      '(',
      ')',
      ',',
      '+',
      '-',
      '=',
      'AND',
      'NOT',
      'CASE',
      'WHEN',
      'THEN',
      'END',
      'IS',
      'NULL',
      'IN',
      'CAST',
      'AS',
      'DATE',
      'LIKE',
      '{',
      '§',
    ];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...pieces), { maxLength: 12 }), (parts) => {
        try {
          values(parts.join(' '));
        } catch (e) {
          expect(e).toBeInstanceOf(ExpressionError);
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('against SQLite', () => {
  const cell = fc.option(fc.integer({ min: -3, max: 3 }), { nil: null });
  const rows = fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 5 });
  const { number, condition } = fc.letrec<{ number: string; condition: string }>((tie) => ({
    number: fc.oneof(
      { maxDepth: 4 },
      fc.constantFrom('a', 'b', 'c', '1.5', '0.0', '2.0', 'NULL'),
      fc
        .tuple(tie('number'), fc.constantFrom('+', '-', '*', '/'), tie('number'))
        .map(([x, op, y]) => `(${x} ${op} ${y})`),
      fc.tuple(tie('number'), tie('number')).map(([x, y]) => `COALESCE(${x}, ${y})`),
      fc.tuple(tie('number'), tie('number')).map(([x, y]) => `NULLIF(${x}, ${y})`),
      fc
        .tuple(tie('condition'), tie('number'), tie('number'))
        .map(([w, x, y]) => `CASE WHEN ${w} THEN ${x} ELSE ${y} END`),
    ),
    condition: fc.oneof(
      { maxDepth: 4 },
      fc.constantFrom('a = b', 'c IS NULL', 'b > 0'),
      fc
        .tuple(tie('number'), fc.constantFrom('=', '<>', '<', '<=', '>', '>='), tie('number'))
        .map(([x, op, y]) => `(${x} ${op} ${y})`),
      fc
        .tuple(tie('condition'), fc.constantFrom('AND', 'OR'), tie('condition'))
        .map(([x, op, y]) => `(${x} ${op} ${y})`),
      tie('condition').map((x) => `(NOT ${x})`),
      fc
        .tuple(tie('number'), tie('number'), tie('number'))
        .map(([x, y, z]) => `(${x} BETWEEN ${y} AND ${z})`),
      fc
        .tuple(tie('number'), fc.constantFrom('IN', 'NOT IN'))
        .map(([x, op]) => `(${x} ${op} (1.0, NULL, a))`),
    ),
  }));
  const db = new Sqlite(':memory:');

  const fromSql = (records: readonly (number | null)[][], source: string): (number | null)[] => {
    db.exec('drop table if exists t; create table t (a real, b real, c real)');
    const insert = db.prepare('insert into t values (?, ?, ?)');
    for (const record of records) insert.run(...record);
    return db.prepare(`select ${source} as v from t order by rowid`).pluck().all() as (
      number | null
    )[];
  };
  const asTable = (records: readonly (number | null)[][]): Table => ({
    length: records.length,
    columns: ['a', 'b', 'c'].map((name, k) =>
      scalarColumn(
        name,
        'number',
        records.map((r) => r[k]),
      ),
    ),
  });

  it('numbers agree', () => {
    fc.assert(
      fc.property(rows, number, (records, source) => {
        const column = finish(
          computeColumn(asTable(records), source, { id: 'x', name: 'x', unit: '' }),
        );
        if (column.type === 'text') throw new Error('text');
        expect(Array.from(column.values, (v) => (v !== v ? null : v + 0))).toEqual(
          fromSql(records, source).map((v) => (v === null ? null : v + 0)),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('three-valued conditions agree', () => {
    fc.assert(
      fc.property(rows, condition, (records, source) => {
        const { yes, no } = finish(conditionOutcome(asTable(records), source));
        expect(records.map((_, i) => (has(yes, i) ? 1 : has(no, i) ? 0 : null))).toEqual(
          fromSql(records, source),
        );
      }),
      { numRuns: 300 },
    );
  });
});

describe('over many records', () => {
  it('gives the same in blocks, through a dictionary, and across their edges', () => {
    const length = 3000;
    const names = Array.from({ length }, (_, i) => (i % 7 === 0 ? null : `Pier ${i % 11}`));
    const many: Table = {
      length,
      columns: [
        textColumn('pier', names),
        scalarColumn(
          'n',
          'number',
          Array.from({ length }, (_, i) => (i % 5 === 0 ? null : i)),
        ),
      ],
    };
    const column = finish(
      computeColumn(many, "CASE WHEN pier LIKE '%1%' THEN n * 2 ELSE CHAR_LENGTH(pier) + n END", {
        id: 'x',
        name: 'x',
        unit: '',
      }),
    );
    if (column.type === 'text') throw new Error('text');
    names.forEach((name, i) => {
      const n = i % 5 === 0 ? NaN : i;
      expect(column.values[i]).toBe(name?.includes('1') ? n * 2 : (name?.length ?? NaN) + n);
    });
    const upper = finish(
      computeColumn(many, "UPPER(pier) || '.'", { id: 'x', name: 'x', unit: '' }),
    );
    expect(fullCell(upper, 2999)).toBe('PIER 7.');
  });

  it('passes an unread cell on as unread', () => {
    const column = finish(
      computeColumn(
        {
          length: 2,
          columns: [
            scalarColumn('d', 'number', [null, null], { unread: new Map([[0, '14 mins']]) }),
          ],
        },
        'd * 2',
        { id: 'x', name: 'x', unit: '' },
      ),
    );
    expect(column.type !== 'text' && [...column.unread]).toEqual([[0, '14 mins']]);
  });

  it('names what an expression speaks of', () => {
    expect([...namesIn('CASE WHEN a > "b c" THEN COALESCE(a, d) END')]).toEqual(['a', 'b c', 'd']);
  });
});
