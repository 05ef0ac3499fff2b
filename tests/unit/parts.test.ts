import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Condenser } from '$lib/core/parts/condense';
import { groupedPart } from '$lib/core/parts/groupedPart';
import { rolesOf } from '$lib/core/parts/roles';
import { taking } from '$lib/core/prepare/reshape';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { bitsetOf, type Bitset } from '$lib/core/table/bitset';
import type { Table } from '$lib/core/table/table';
import { BadBands, TallyRefused } from '$lib/core/errors';
import { freezeAll } from '$lib/core/tally/answer/answer';
import { wholeInput, type TallyInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { Tally } from '$lib/core/tally/spec/specs';
import { checkFooting } from '$lib/core/tally/trust/checkFooting';
import { withIds } from '$lib/core/tally/spec/withIds';
import { SPECS, table as once } from '../support/generated';

/** Some of the records of a list, in the order given. */
const some = (list: Table, records: readonly number[]): Table => ({
  length: records.length,
  columns: list.columns.map((column) => finish(taking(column, [...records]))),
});

/** Each record twice, some three times: rows that stand for several records. */
const table = some(once, [...Array(240).keys(), ...Array(240).keys(), 3, 50, 99]);
const LENGTH = table.length;

/** Any cutting of a list into parts, in any order of arrival. */
const cutting = (length: number): fc.Arbitrary<number[][]> =>
  fc
    .tuple(
      fc.shuffledSubarray(
        Array.from({ length }, (_, i) => i),
        { minLength: length, maxLength: length },
      ),
      fc.array(fc.integer({ min: 0, max: length }), { maxLength: 6 }),
    )
    .map(([order, cuts]) => {
      const edges = [0, ...cuts.toSorted((a, b) => a - b), length];
      return edges.slice(1).map((to, k) => order.slice(edges[k], to));
    });

const among = (set: Bitset, records: readonly number[]): Bitset =>
  bitsetOf(
    records.length,
    records.flatMap((record, k) => ((set[record >>> 5] >>> (record & 31)) & 1 ? [k] : [])),
  );

/** What a list comes to in parts, as the base of tallies. */
function condensedInput(whole: TallyInput, parts: readonly number[][], tally: Tally): TallyInput {
  const needed = rolesOf([tally], whole.table);
  if ('whole' in needed) throw new TallyRefused(needed.whole);
  const condenser = new Condenser(needed.roles);
  for (const records of parts)
    finish(
      condenser.add({
        table: some(whole.table, records),
        narrowed: among(whole.narrowed, records),
        counted: among(whole.counted, records),
      }),
    );
  const { table: rows, narrowed, counted } = condenser.finish();
  return { ...wholeInput(rows, whole.listName), narrowed, counted, ladder: whole.ladder };
}

/** Whether two results are the same: numbers within a share of their size, all else to the letter. */
function near(a: unknown, b: unknown, share: number): boolean {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= share * Math.max(1, Math.abs(a), Math.abs(b));
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [keys, others] = [Object.entries(a), new Map(Object.entries(b))];
  return (
    keys.length === others.size &&
    keys.every(([key, value]) => others.has(key) && near(value, others.get(key), share))
  );
}

/** Tables as plain data, without what names single records. */
function told(input: TallyInput, tally: Tally): unknown {
  const answer = finish(computeTally(input, tally));
  const tables = finish(freezeAll(answer.tables)).map(({ name, columns, rows }) => ({
    name,
    titles: columns.map((c) => [c.key, c.title, c.type]),
    rows: rows.map(({ kind, level, cells, keys, where, partOf }) => ({
      kind,
      level,
      cells,
      keys,
      where,
      partOf,
    })),
  }));
  const { foots, compared } = finish(checkFooting(input, answer));
  return { records: answer.records, tables, foots, compared };
}

const counted = bitsetOf(
  LENGTH,
  Array.from({ length: LENGTH }, (_, i) => i).filter((i) => i % 11 !== 3),
);
const narrowed = bitsetOf(
  LENGTH,
  Array.from({ length: LENGTH }, (_, i) => i).filter((i) => i % 11 !== 3 || i % 2 === 0),
);
const whole: TallyInput = { ...wholeInput(table, 'Sailings'), narrowed, counted };

const IN_PARTS = [
  'ledger',
  'crosstab',
  'periods',
  'growth',
  'forecast',
  'frequency',
  'conditional',
  'spread',
  'ranking',
  'contributions',
  'percentile',
] as const;

describe('figures from parts', () => {
  it('are refused where too many different records would be kept apart', () => {
    const whole = { table, narrowed, counted };
    const keeping = (most: number): Condenser =>
      new Condenser({ kept: ['Route', 'Vessel'], summed: ['Fares'] }, most);
    // 5 routes with the blank, 3 vessels, counted or not: each of them is met.
    expect(() => finish(keeping(14).add(whole))).toThrow(TallyRefused);
    expect(() => finish(keeping(14).add(whole))).toThrow('group by fewer columns');
    const enough = keeping(60);
    finish(enough.add(whole));
    expect(enough.finish().table.weights?.reduce((a, b) => a + b, 0)).toBe(LENGTH);
  });

  it('count blank and unread cells of what was only added up, and of what was kept', () => {
    const odd: Table = {
      length: 6,
      columns: [
        textColumn('Depot', ['a', 'a', 'b', 'b', 'b', 'a']),
        scalarColumn('Fee', 'number', [1, NaN, NaN, 4, NaN, NaN], {
          unread: new Map([
            [1, 'x'],
            [4, 'y'],
          ]),
        }),
      ],
    };
    const tally = Tally.parse({
      kind: 'ledger',
      groups: [{ column: 'Depot' }],
      measures: ['sum', 'values', 'blanks', 'unread'].map((kind) => ({ kind, column: 'Fee' })),
    });
    const cells = (more: object): unknown => {
      const spec = Tally.parse({ ...tally, ...more });
      const on = condensedInput(
        wholeInput(odd),
        [
          [4, 0],
          [1, 2],
          [5, 3],
        ],
        spec,
      );
      const [main] = finish(freezeAll(finish(computeTally(on, spec)).tables));
      return main.rows.map((row) => row.cells);
    };
    const want = [
      ['Grand total', 6, 5, 2, 2, 2],
      ['a', 3, 1, 1, 1, 1],
      ['b', 3, 4, 1, 1, 1],
    ];
    expect(cells({})).toEqual(want);
    // The same where the values are kept, for the median.
    const kept = cells({
      measures: [
        ...(tally.kind === 'ledger' ? tally.measures : []),
        { kind: 'median', column: 'Fee' },
      ],
    });
    expect(kept).toEqual([
      ['Grand total', 6, 5, 2, 2, 2, 2.5],
      ['a', 3, 1, 1, 1, 1, 1],
      ['b', 3, 4, 1, 1, 1, 4],
    ]);
  });

  it('of a database have the decimals of its extremes, where the first records showed fewer', () => {
    const list = [textColumn('Depot', []), scalarColumn('Fee', 'number', [], { decimals: 0 })];
    const figure = (name: string, value: number, decimals = 0) =>
      scalarColumn(name, 'number', [value], { decimals });
    const answer: Table = {
      length: 1,
      columns: [
        textColumn('Depot', ['a']),
        figure('records', 3),
        figure('count', 3),
        figure('sum', 6.75, 2),
        figure('lowest', 1),
        figure('highest', 3.25, 2),
        figure('squares', 0),
        figure('magnitude', 6.75, 2),
        figure('unread', 0),
      ],
    };
    const part = groupedPart(answer, list, { kept: ['Depot'], summed: ['Fee'], squared: [] });
    expect(part.columns[1]).toMatchObject({ id: 'Fee', decimals: 2 });
    expect([...(part.weights ?? [])]).toEqual([3]);
  });

  it('hold no single value of what was only added up: whoever asks for one is refused', () => {
    const condenser = new Condenser({ kept: ['Route'], summed: ['Fares'] });
    finish(condenser.add({ table, narrowed, counted }));
    const fares = condenser.finish().table.columns.find(({ id }) => id === 'Fares');
    expect(() => fares && 'values' in fares && fares.values).toThrow(
      'every single value of “Fares”',
    );
  });

  for (const kind of IN_PARTS)
    it(`${kind}: any cutting, in any order, gives the figures of the whole`, () => {
      let compared = 0;
      const reasons = new Set<string>();
      fc.assert(
        fc.property(SPECS[kind], cutting(LENGTH), (spec, parts) => {
          const tally = withIds(Tally.parse(spec), table.columns);
          const needed = rolesOf([tally], table);
          if ('whole' in needed) {
            reasons.add(needed.whole);
            return;
          }
          let want: unknown;
          try {
            want = told(whole, tally);
          } catch (error) {
            if (error instanceof TallyRefused || error instanceof BadBands) return;
            throw error;
          }
          const got = told(condensedInput(whole, parts, tally), tally);
          // Weights of a forecast are searched for: what rounding does to their errors grows on the way.
          if (!near(got, want, kind === 'forecast' ? 1e-4 : 1e-9)) expect(got).toEqual(want);
          compared++;
        }),
        { numRuns: 200 },
      );
      expect(compared, [...reasons].join('; ')).toBeGreaterThan(10);
    });
});
