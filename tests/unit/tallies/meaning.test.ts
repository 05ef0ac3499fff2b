import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { dayNumber } from '$lib/core/table/calendar';
import { newBench } from '$lib/core/bench/newBench';
import { columnOf, type Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import { answered, answeredOn, behind } from '../../support/ask';

/** Hives at three sites: the South gave honey that nobody weighed. */
const hives: Table = {
  length: 7,
  columns: [
    textColumn('Site', ['North', 'North', 'South', 'South', 'East', 'East', null]),
    scalarColumn('Honey', 'number', [10, NaN, NaN, NaN, 7, 9, 4]),
    scalarColumn('Frames', 'number', [4, 5, 3, 2, 3, NaN, 2]),
    scalarColumn(
      'Checked',
      'date',
      [
        [1, 10],
        [1, 20],
        [2, 1],
        [2, 11],
        [3, 1],
        [3, 5],
        [3, 8],
      ].map(([month, day]) => dayNumber(2024, month, day)),
    ),
  ],
};
const SUM = { kind: 'sum', column: 'Honey' };
const bySite = { kind: 'ledger', groups: [{ column: 'Site' }], measures: [SUM] };
const cellsOf = (tally: unknown, table = 0): unknown[][] =>
  answered(hives, { tallies: [tally] }).tallies[0].tables[table].rows.map(({ cells }) => cells);
const wordsOf = (tally: unknown): string => answered(hives, { tallies: [tally] }).tallies[0].words;

describe('a sum without a value', () => {
  it('is none where records are there, and 0 where none is', () => {
    expect(cellsOf(bySite)).toEqual([
      ['Grand total', 7, 30],
      ['East', 2, 16],
      ['North', 2, 10],
      ['South', 2, null],
      ['blank', 1, 4],
    ]);
    const cross = {
      kind: 'crosstab',
      down: [{ column: 'Site' }],
      across: [{ column: 'Checked', period: 'month' }],
      measures: [SUM],
    };
    const south = cellsOf(cross).find(([label]) => label === 'South');
    // January and March have no record of it, February two without a value.
    expect(south?.slice(1, 5)).toEqual([0, null, 0, null]);
  });

  it('takes no part in what is asked of the sums', () => {
    const lowest = {
      kind: 'nested',
      inner: bySite,
      outer: { kind: 'ledger', measures: [{ kind: 'min', column: 'sum of Honey' }] },
    };
    expect(cellsOf(lowest)[0].at(-1)).toBe(4);
  });
});

describe('ratios and differences of totals', () => {
  const RATIO = { kind: 'ratio', column: 'Honey', other: 'Frames' };
  const LESS = { kind: 'difference', column: 'Honey', other: 'Frames' };

  it('are of the sums, not of the records, each over its own values', () => {
    expect(cellsOf({ ...bySite, measures: [RATIO, LESS] })).toEqual([
      ['Grand total', 7, 30 / 19, 11],
      ['East', 2, 16 / 3, 13],
      ['North', 2, 10 / 9, 1],
      // Nothing of the South was weighed.
      ['South', 2, null, null],
      ['blank', 1, 2, 2],
    ]);
  });

  it('are said in the sentence, never add up, and open to their arithmetic', () => {
    const { input, result } = answeredOn(hives, { tallies: [{ ...bySite, measures: [RATIO] }] });
    const [tally] = result.tallies;
    expect(tally.words).toContain('sum of Honey / sum of Frames');
    const [table] = tally.tables;
    expect(table.columns.at(-1)).toMatchObject({
      title: 'sum of Honey / sum of Frames',
      decimals: 2,
    });
    expect(table.columns.at(-1)).not.toHaveProperty('adds');
    const found = behind(input, tally, { table: 'main', row: ['East'], column: 'm1' });
    expect(found.arithmetic).toBe('Sum 16 ÷ sum 3.');
    expect([...found.records]).toEqual([4, 5]);
  });

  it('are in every kind that takes a measure: cross-tab, ranking, periods, growth, conditions', () => {
    const of = (tally: object, table = 0): unknown[][] => cellsOf(tally, table);
    expect(
      of({
        kind: 'crosstab',
        down: [{ column: 'Site' }],
        across: [{ column: 'Checked', period: 'month' }],
        measures: [RATIO],
      })
        .find(([label]) => label === 'East')
        ?.at(-1),
    ).toBeCloseTo(16 / 3, 12);
    expect(
      of({ kind: 'ranking', groups: [{ column: 'Site' }], by: RATIO }).map(([, site]) => site)[0],
    ).toBe('East');
    expect(
      of({ kind: 'conditional', key: { column: 'Site' }, columns: [{ measure: RATIO }] })[1][1],
    ).toBeCloseTo(16 / 3, 12);
    const months = of({ kind: 'periods', column: 'Checked', levels: ['month'], measures: [RATIO] });
    expect(months.map((cells) => cells[4])).toEqual([30 / 19, 10 / 9, null, 20 / 5]);
  });

  it('of 0 below is none, and a missing second column is named', () => {
    const zero = {
      ...hives,
      columns: [...hives.columns, scalarColumn('Nil', 'number', [0, 0, 0, 0, 0, 0, 0])],
    };
    const [tally] = answered(zero, {
      tallies: [{ ...bySite, measures: [{ ...RATIO, other: 'Nil' }] }],
    }).tallies;
    expect(tally.tables[0].rows.every(({ cells }) => cells[2] === null)).toBe(true);
    expect(() => cellsOf({ ...bySite, measures: [{ kind: 'ratio', column: 'Honey' }] })).toThrow(
      'needs a second column',
    );
    expect(() =>
      cellsOf({ ...bySite, measures: [{ kind: 'ratio', column: 'Honey', other: 'Site' }] }),
    ).toThrow('measures[0].other');
  });
});

describe('what is not a quantity', () => {
  it('a spread of texts foots: of a text there is no deviation that could be apart', () => {
    const { footing } = answered(hives, {
      tallies: [{ kind: 'spread', columns: ['Site'], key: { column: 'Site' } }],
    }).tallies[0];
    expect([footing.foots, footing.failure]).toEqual([true, null]);
  });

  it('numbers named like identifiers are never summed by a first guess', () => {
    const table: Table = {
      length: 2,
      columns: [
        scalarColumn('Account', 'number', [100200, 100201]),
        scalarColumn('Load', 'number', [3, 4]),
        scalarColumn('Account total', 'number', [3, 4]),
        scalarColumn('Code', 'number', [3, 4], { unit: 'kg' }),
      ],
    };
    const [{ tally }] = newBench(table, 1).tray;
    expect(tally.kind === 'ledger' && tally.measures.map(({ column }) => column)).toEqual(
      ['Load', 'Account total', 'Code'].map((name) => columnOf(table, name).id),
    );
    expect(finish(columnFacts(table)).map(({ adds }) => adds)).toEqual([false, true, true, true]);
  });
});

describe('two periods with a group on one side only', () => {
  it('count it as 0 on the other, so that the groups’ differences are the whole’s', () => {
    const moved = {
      kind: 'contributions',
      measure: { kind: 'records' },
      by: [{ column: 'Site' }],
      between: {
        of: 'periods',
        column: 'Checked',
        period: 'month',
        from: '2024-01',
        to: '2024-03',
      },
    };
    const [whole, ...groups] = cellsOf(moved);
    const at = (cells: unknown[], k: number): number => Number(cells[k]);
    for (const cells of groups) expect(at(cells, 3)).toBe(at(cells, 2) - at(cells, 1));
    expect(groups.every(([, before, after]) => before !== null && after !== null)).toBe(true);
    expect(groups.reduce((sum, cells) => sum + at(cells, 3), 0)).toBe(at(whole, 3));
  });
});

describe('numbers in sentences and labels', () => {
  it('are written as they were given', () => {
    const bands = (by: object): string =>
      wordsOf({ kind: 'frequency', key: { column: 'Honey', bands: by } });
    expect(bands({ by: 'width', width: 12.5, origin: 0.25 })).toContain(
      'bands 12.5 wide from 0.25',
    );
    expect(bands({ by: 'edges', edges: [-1.5, 134117.5, 1e9] })).toContain(
      'bands from −1.5, 134,117.5 and 1,000,000,000',
    );
    expect(
      wordsOf({
        kind: 'percentile',
        column: 'Honey',
        percentiles: [57.5, 99.9995],
        ranksOf: [-1.5],
      }),
    ).toContain('The 57.5th and 99.9995th percentiles of Honey, and where −1.5 stands');
  });

  it('and so are the edges of bands: no two labels are equal', () => {
    const table = cellsOf({
      kind: 'frequency',
      key: { column: 'Honey', bands: { by: 'edges', edges: [4, 7.0000001, 7.0000002, 12] } },
    }).map(([label]) => label);
    expect(table).toContain('7.0000001 to under 7.0000002');
    expect(new Set(table).size).toBe(table.length);
  });

  it('a percentile between two values is not written as one of them', () => {
    const { tables } = answered(hives, {
      tallies: [{ kind: 'percentile', column: 'Honey', percentiles: [57.5], ranksOf: [-1.5] }],
    }).tallies[0];
    expect(tables[0].columns.find(({ key }) => key === 'value')?.decimals).toBe(1);
    expect(tables[1].columns.find(({ key }) => key === 'value')?.decimals).toBe(1);
  });
});

describe('words under conditional figures', () => {
  const leaf = (column: string, op: string, value: number) => ({
    kind: 'leaf',
    column,
    test: { test: 'compare', op, value },
  });

  it('say of columns’ conditions what meets several and none, and of groups that each record is in one', () => {
    const result = answered(hives, {
      tallies: [
        {
          kind: 'conditional',
          key: { column: 'Site' },
          columns: [
            { condition: leaf('Honey', 'gt', 5) },
            { condition: leaf('Frames', 'gt', 3) },
            { condition: leaf('Frames', 'gt', 3), measure: SUM },
          ],
        },
      ],
    });
    // Honey over 5: records 1, 5 and 6; frames over 3: records 1 and 2.
    expect(result.tallies[0].warnings.map(({ words }) => words)).toEqual([
      'The rows add up to the whole: each record is in one group.',
      '1 record meets the conditions of more than one column.',
      '3 records meet the condition of no column.',
    ]);
  });

  it('the row of all records says what it is all of', () => {
    const counted = {
      ladder: { rungs: [{ condition: leaf('Frames', 'gt', 2) }] },
      tallies: [
        { kind: 'conditional', key: { column: 'Site' }, columns: [{}] },
        { kind: 'frequency', key: { column: 'Site' } },
        { kind: 'frequency', key: { column: 'Site' }, scope: 'all' },
      ],
    };
    const labels = answered(hives, counted).tallies.map(
      ({ tables }) => tables[0].rows.find(({ kind }) => kind === 'total')?.cells[0],
    );
    expect(labels).toEqual(['All counted', 'All counted', 'All records']);
  });
});
