import { describe, expect, it } from 'vitest';
import { TallyResult } from '$lib/core/tally/answer/result';
import { AskResult } from '$lib/core/ask/result';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { answered, behind, faultsOf, groups, rows, answeredOn } from '../../support/ask';
import { small, ledger } from '../../support/smallList';

describe('an ask that fits', () => {
  it('is plain data that its own schema reads back', () => {
    const result = answered(small, {
      computed: [
        { name: 'Double', expression: 'Sum * 2', unit: '£' },
        { name: 'Quad', expression: 'Double * 2' },
        { name: 'Most', across: { measure: 'highestColumn', columns: ['Sum', 'Double'] } },
      ],
      ladder: {
        rungs: [
          { condition: { kind: 'leaf', column: 'Region', test: { test: 'blank' }, not: true } },
        ],
        setAside: { records: [1] },
      },
      sort: [{ column: 'Sum', descending: true }],
      tallies: [
        ledger({ title: 'By region', records: true }),
        { kind: 'percentile', column: 'Quad' },
      ],
    });
    expect(AskResult.parse(JSON.parse(JSON.stringify(result)))).toEqual(result);
    expect(result.counts).toMatchObject({ all: 6, narrowed: 5, setAside: 1, counted: 4 });
    expect(groups(result, 'records').map((r) => [r['Record'], r['Quad'], r['Most']])).toEqual([
      [3, 48, 'Double'],
      [5, 36, 'Double'],
      [4, 28, 'Double'],
      [2, 20, 'Double'],
    ]);
    expect(rows(result)).toEqual([
      { Region: 'Grand total', Records: 4, 'sum of Sum': 33 },
      { Region: 'North', Records: 2, 'sum of Sum': 17 },
      { Region: 'South', Records: 2, 'sum of Sum': 16 },
    ]);
    expect(result.tallies[0].words).toBe(
      'Sailings grouped by Region, in the order read. Under each group: sum of Sum.',
    );
  });

  it('a ledger has an order of its own, over that of the list', () => {
    const of = (sort?: object[]): unknown[] => {
      const result = answered(small, {
        sort: [{ column: 'Sum' }],
        tallies: [
          ledger({
            records: true,
            ...(sort && { sort }),
            measures: [{ kind: 'first', column: 'Depot' }],
          }),
        ],
      });
      return [
        groups(result, 'records').map((r) => r['Sum']),
        groups(result).map((g) => g['first of Depot']),
      ];
    };
    expect(of()).toEqual([
      [1, 5, 7, 9, 10, 12],
      ['A', 'C', 'D'],
    ]);
    expect(of([{ column: 'Depot', descending: true }])).toEqual([
      [1, 9, 7, 12, 5, 10],
      ['B', 'D', 'D'],
    ]);
  });

  it('an index on a period that is not counted says so', () => {
    const index = (base: string) =>
      answered(small, {
        tallies: [
          {
            kind: 'periods',
            column: 'Day',
            levels: ['year'],
            measures: [{ kind: 'records' }],
            index: { base },
          },
        ],
      }).tallies[0].warnings.map((w) => w.code);
    expect(index('2024-06-01')).not.toContain('no-index-base');
    expect(index('2019-01-01')).toContain('no-index-base');
  });

  it('before setting aside, and all records, where a tally says so', () => {
    const result = answered(small, {
      ladder: {
        rungs: [{ condition: { kind: 'expression', expression: 'Sum > 5' } }],
        setAside: { records: [1] },
      },
      tallies: (['counted', 'narrowed', 'all'] as const).map((scope) =>
        ledger({ scope, groups: [] }),
      ),
    });
    expect(result.tallies.map((t) => [t.records, t.tables[0].rows[0].cells[1]])).toEqual([
      [3, 28],
      [4, 38],
      [6, 44],
    ]);
  });

  it('one of another list’s values', () => {
    const other: Table = { length: 2, columns: [textColumn('Name', ['c', 'D'])] };
    const condition = {
      kind: 'leaf',
      column: 'Depot',
      test: { test: 'listed', list: 'some', column: 'Name' },
    };
    expect(
      answered(
        small,
        { lists: { some: {} }, ladder: { rungs: [{ condition }] }, tallies: [ledger()] },
        { some: other },
      ).counts.counted,
    ).toBe(3);
    const rows = { kind: 'conditional', rows: [{ name: 'listed', condition }], columns: [{}] };
    const nested = {
      kind: 'nested',
      inner: rows,
      outer: { kind: 'ledger', measures: [{ kind: 'sum', column: 'c1' }] },
    };
    const within = answered(
      small,
      { lists: { some: {} }, tallies: [rows, nested] },
      { some: other },
    );
    expect(within.tallies.map((t) => t.tables[0].rows[0].cells[1])).toEqual([6, 3]);
    const exact = { ...condition, test: { ...condition.test, exact: true } };
    expect(
      answered(
        small,
        { lists: { some: {} }, ladder: { rungs: [{ condition: exact }] }, tallies: [ledger()] },
        { some: other },
      ).counts.counted,
    ).toBe(2);
  });

  it('a result becomes a list of its own: linked to its source, or frozen with a note', () => {
    const sums = {
      kind: 'ledger',
      groups: [{ column: 'Region' }],
      measures: [{ kind: 'sum', column: 'Sum' }],
    };
    const share = {
      joins: [
        {
          list: 'sums',
          on: [{ column: 'Region' }],
          bring: [{ column: 'sum of Sum', as: 'Whole' }],
        },
      ],
      computed: [{ name: 'Share', expression: 'Sum / Whole' }],
      tallies: [
        {
          kind: 'ledger',
          groups: [{ column: 'Region' }],
          measures: [
            { kind: 'sum', column: 'Share' },
            { kind: 'max', column: 'Share' },
          ],
        },
      ],
    };
    const linked = answered(small, { lists: { sums: { tally: sums } }, ...share });
    expect(
      groups(linked).map((g) => [g['Region'], g['sum of Share'], g['highest of Share']]),
    ).toEqual([
      ['North', expect.closeTo(1, 12), 12 / 27],
      ['South', 1, 9 / 16],
      ['blank', null, null],
    ]);
    expect(linked.prepared[0].words).toBe(
      '“sums” holds 3 records that follow Sailings as it was read: Sailings grouped by Region, in the order read. Under each group: sum of Sum.',
    );
    const result = TallyResult.parse(answered(small, { tallies: [sums] }).tallies[0]);
    const frozen = answered(
      {
        ...small,
        length: 2,
        columns: small.columns.map((c) =>
          c.type === 'text'
            ? { ...c, codes: c.codes.slice(0, 2) }
            : { ...c, values: c.values.slice(0, 2) },
        ),
      },
      { lists: { sums: { frozen: { on: '2026-10-31', from: 'Sailings', result } } }, ...share },
    );
    expect(groups(frozen)[0]['sum of Share']).toEqual(expect.closeTo(15 / 27, 12));
    expect(frozen.prepared[0].words).toMatch(/frozen on 2026-10-31 from Sailings/);
    expect(
      faultsOf(() =>
        answered(small, {
          lists: { sums: { tally: { ...sums, groups: [{ column: 'x' }] } } },
          ...share,
        }),
      )[0],
    ).toMatch(/^lists\.sums\.tally\.groups\[0\]\.column/);
  });

  it('a band table kept as a list serves any list', () => {
    const bands: Table = {
      length: 3,
      columns: [
        textColumn('Band', ['low', 'high', null]),
        scalarColumn('From', 'number', [0, 6, 10]),
        scalarColumn('To', 'number', [6, 10, null]),
      ],
    };
    const key = {
      column: 'Sum',
      bands: { by: 'list', list: 'bands', from: 'From', to: 'To', label: 'Band' },
    };
    const ask = {
      lists: { bands: {} },
      tallies: [
        { kind: 'frequency', key },
        { kind: 'ledger', groups: [key] },
      ],
    };
    const result = answered(small, ask, { bands });
    expect(groups(result).map((g) => [g['Sum in bands'], g['Count']])).toEqual([
      ['low', 2],
      ['high', 2],
      ['10 and over', 2],
    ]);
    expect(groups(result, 0, 1).map((g) => g['Records'])).toEqual([2, 2, 2]);
    expect(faultsOf(() => answered(small, ask))[0]).toMatch(
      /^tallies\[0\]\.key\.bands\.list: There is no list “bands”/,
    );
  });

  it('sentences read well with 1, 2 and 5 of anything', () => {
    const words = (tally: object): string => answered(small, { tallies: [tally] }).tallies[0].words;
    const keys = ['Region', 'Depot', 'Day', 'Sum', 'expression: Sum * 2'].map((column) => ({
      column,
    }));
    expect(words(ledger({ groups: keys.slice(0, 1), measures: [{ kind: 'records' }] }))).toBe(
      'Sailings grouped by Region, in the order read. Under each group: count of records.',
    );
    expect(
      words(
        ledger({
          groups: keys.slice(0, 2),
          measures: [{ kind: 'records' }, { kind: 'mean', column: 'Sum' }],
        }),
      ),
    ).toBe(
      'Sailings grouped by Region, then Depot, in the order read. Under each group: count of records and mean of Sum.',
    );
    expect(words(ledger({ groups: keys, measures: [] }))).toBe(
      'Sailings grouped by Region, then Depot, then Day, then Sum, then Sum * 2, in the order read.',
    );
    expect(words({ kind: 'percentile', column: 'Sum', percentiles: [50] })).toBe(
      'The 50th percentile of Sum, by definition 7.',
    );
    expect(
      words({ kind: 'percentile', column: 'Sum', percentiles: [1, 2, 3, 4, 5], ranksOf: [1] }),
    ).toBe(
      'The 1st, 2nd, 3rd, 4th and 5th percentiles of Sum, and where 1 stands, by definition 7.',
    );
    expect(words({ kind: 'spread', columns: ['Sum'] })).toBe('How far Sum spreads, by 12 facts.');
    expect(words({ kind: 'spread', columns: ['Sum', 'Day'] })).toBe(
      'How far Sum and Day spread, by 12 facts.',
    );
    expect(
      words({
        kind: 'periods',
        column: 'Day',
        levels: ['year', 'half'],
        measures: [{ kind: 'sum', column: 'Sum' }],
        against: ['previous'],
        running: true,
        index: {},
      }),
    ).toBe(
      'Sum of Sum by year and half-year of Day, against the period before, with the running total, with an index where 100 is the first period, years that start in January.',
    );
  });

  it('a key that stands twice is refused until one is picked', () => {
    const other: Table = {
      length: 3,
      columns: [textColumn('Depot', ['A', 'B', 'a ']), scalarColumn('Size', 'number', [1, 2, 5])],
    };
    const join = (repeated?: string) => ({
      list: 'o',
      on: [{ column: 'Depot' }],
      bring: [{ column: 'Size', ...(repeated && { repeated }) }],
    });
    const sums = (repeated: string) =>
      groups(
        answered(
          small,
          {
            lists: { o: {} },
            joins: [join(repeated)],
            tallies: [
              {
                kind: 'ledger',
                groups: [{ column: 'Depot' }],
                measures: [{ kind: 'max', column: 'Size' }],
              },
            ],
          },
          { o: other },
        ),
      ).map((g) => g['highest of Size']);
    expect(
      faultsOf(() =>
        answered(small, { lists: { o: {} }, joins: [join()], tallies: [ledger()] }, { o: other }),
      )[0],
    ).toMatch(/1 key stands more than once.*first, the last or a measure/);
    expect(sums('first')).toEqual([1, 2, null, null]);
    expect(sums('last')).toEqual([5, 2, null, null]);
    expect(sums('sum')).toEqual([6, 2, null, null]);
    expect(sums('values')).toEqual([2, 1, null, null]);
    const result = answered(
      small,
      { lists: { o: {} }, joins: [join('first')], tallies: [ledger()] },
      { o: other },
    );
    expect([result.list.records, result.prepared[0].words]).toEqual([
      6,
      '3 records of 6 records have no match in “o” and get blanks.',
    ]);
  });

  it('nested: of each region the highest of the sums by depot, and which', () => {
    const { input, result } = answeredOn(small, {
      tallies: [
        {
          kind: 'nested',
          inner: {
            kind: 'ledger',
            groups: [{ column: 'Region' }, { column: 'Depot' }],
            measures: [{ kind: 'sum', column: 'Sum' }],
          },
          outer: {
            kind: 'ledger',
            groups: [{ column: 'Region' }],
            measures: [
              { kind: 'max', column: 'm1' },
              { kind: 'atMax', column: 'm1', other: 'Depot' },
              { kind: 'mean', column: 'sum of Sum' },
            ],
          },
        },
      ],
    });
    expect(groups(result).map((g) => Object.values(g))).toEqual([
      ['North', 2, 15, 'A', 13.5],
      ['South', 2, 9, 'D', 8],
      ['blank', 1, 1, 'D', 1],
    ]);
    expect(result.tallies[0].warnings[0].words).toContain('not from the records');
    const row = result.tallies[0].tables[0].rows.findIndex((r) => r.cells[0] === 'North');
    expect([...behind(input, result.tallies[0], { table: 0, row, column: 2 }).records]).toEqual([
      0, 1, 2,
    ]);
  });

  it('what moved between two readings, and through which records', () => {
    const older: Table = {
      ...small,
      length: 6,
      columns: small.columns.map((c) =>
        c.id === 'Sum'
          ? scalarColumn('Sum', 'number', [10, 5, 12, 7, 4, 1], { unit: '£' })
          : c.id === 'Depot'
            ? textColumn('Depot', ['A', 'A', 'B', 'C', 'D', 'E'])
            : c,
      ),
    };
    const { input, result } = answeredOn(
      small,
      {
        lists: { before: {} },
        tallies: [{ kind: 'comparison', with: 'before', match: ['Depot', 'Day'], tally: ledger() }],
      },
      { before: older },
    );
    expect(rows(result)).toEqual([
      {
        Where: 'Grand total',
        Figure: 'sum of Sum',
        Before: 39,
        After: 44,
        Difference: 5,
        Change: 5 / 39,
        Came: 1,
        'By coming': 1,
        Went: 1,
        'By going': -1,
        Changed: 1,
        'By changing': 5,
        'Left over': 0,
      },
      {
        Where: 'South',
        Figure: 'sum of Sum',
        Before: 11,
        After: 16,
        Difference: 5,
        Change: 5 / 11,
        Came: 0,
        'By coming': 0,
        Went: 0,
        'By going': 0,
        Changed: 1,
        'By changing': 5,
        'Left over': 0,
      },
    ]);
    expect([...behind(input, result.tallies[0], { table: 0, row: 1, column: 4 }).records]).toEqual([
      4,
    ]);
  });
});
