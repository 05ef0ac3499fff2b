import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { dayNumber } from '$lib/core/table/calendar';
import type { Table } from '$lib/core/table/table';
import { answered, behind, groups, rows, answeredOn } from '../../support/ask';
import { small, ledger } from '../../support/smallList';

describe('edges', () => {
  const none: Table = {
    length: 0,
    columns: small.columns.map((c) =>
      c.type === 'text'
        ? { ...c, codes: new Int32Array(0), dictionary: [] }
        : { ...c, values: new Float64Array(0) },
    ),
  };
  const every = [
    ledger({ groups: [{ column: 'Region' }, { column: 'Day', period: 'month' }] }),
    {
      kind: 'crosstab',
      down: [{ column: 'Region' }],
      across: [{ column: 'Depot' }],
      measures: [{ kind: 'mean', column: 'Sum' }],
    },
    {
      kind: 'conditional',
      rows: [{ name: 'x', condition: { kind: 'expression', expression: 'Sum > 1' } }],
      columns: [{}],
    },
    { kind: 'frequency', key: { column: 'Sum', bands: { by: 'number', count: 5 } } },
    { kind: 'frequency', key: { column: 'Sum', bands: { by: 'equalCount', count: 3 } } },
    { kind: 'frequency', key: { column: 'Depot' } },
    { kind: 'spread', columns: ['Sum', 'Day', 'Depot'] },
    { kind: 'percentile', column: 'Sum', ranksOf: [3] },
    { kind: 'ranking', by: { kind: 'max', column: 'Sum' }, top: 2 },
    {
      kind: 'ranking',
      groups: [{ column: 'Depot' }],
      by: { kind: 'sum', column: 'Sum' },
      bottom: 1,
    },
  ];

  it('no records, one record and all blank make tables that foot', () => {
    const one: Table = {
      length: 1,
      columns: small.columns.map((c) =>
        c.type === 'text' ? textColumn(c.name, ['only']) : { ...c, values: c.values.slice(0, 1) },
      ),
    };
    const blank: Table = {
      length: 3,
      columns: small.columns.map((c) =>
        c.type === 'text'
          ? textColumn(c.name, [null, null, null])
          : { ...c, values: new Float64Array(3).fill(NaN) },
      ),
    };
    for (const list of [none, one, blank]) {
      const result = answered(list, { tallies: every });
      for (const t of result.tallies) expect([t.words, t.footing.foots]).toEqual([t.words, true]);
    }
    const spread = rows(answered(blank, { tallies: [every[6]] }))[0];
    expect([spread['count of values'], spread['mean'], spread['lowest']]).toEqual([0, null, null]);
  });

  it('no date at all refuses a rollup in words', () => {
    expect(() =>
      answered(none, {
        tallies: [
          { kind: 'periods', column: 'Day', levels: ['month'], measures: [{ kind: 'records' }] },
        ],
      }),
    ).toThrow(/tallies\[0\]: No counted record has a date/);
  });

  it('all equal: bands, places and percentiles', () => {
    const equal: Table = {
      length: 4,
      columns: [
        scalarColumn('Sum', 'number', [7, 7, 7, 7]),
        textColumn('Depot', ['a', 'b', 'c', 'd']),
      ],
    };
    const result = answered(equal, {
      tallies: [
        every[3],
        every[4],
        { kind: 'ranking', by: { kind: 'max', column: 'Sum' }, top: 1, ties: 'mean' },
      ],
    });
    expect(groups(result).map((g) => [g['Sum in bands'], g['Count']])).toEqual([['7', 4]]);
    expect(groups(result, 0, 1).map((g) => g['Count'])).toEqual([4]);
    expect(groups(result, 0, 2).map((g) => g['Place'])).toEqual([2.5, 2.5, 2.5, 2.5]);
    expect(result.tallies[2].warnings[0].words).toBe('A tie at the edge is kept: 4 instead of 1.');
  });

  it('years 1 and 9999, leap days and years that start in any month', () => {
    const far: Table = {
      length: 4,
      columns: [
        scalarColumn('Day', 'date', [
          dayNumber(1, 1, 1),
          dayNumber(9999, 12, 31),
          dayNumber(2024, 2, 29),
          dayNumber(2024, 3, 31),
        ]),
      ],
    };
    const years = answered(far, {
      tallies: [
        { kind: 'periods', column: 'Day', levels: ['year'], measures: [{ kind: 'records' }] },
      ],
    });
    expect(groups(years).length).toBe(9999);
    expect(
      groups(years)
        .filter((g) => g['Records'] !== 0)
        .map((g) => [g['Period'], g['Records']]),
    ).toEqual([
      ['1', 1],
      ['2024', 2],
      ['9999', 1],
    ]);
    const leap: Table = {
      length: 2,
      columns: [scalarColumn('Day', 'date', [dayNumber(2024, 2, 29), dayNumber(2025, 2, 28)])],
    };
    const days = answered(leap, {
      tallies: [
        {
          kind: 'periods',
          column: 'Day',
          levels: ['day'],
          measures: [{ kind: 'records' }],
          against: ['yearBefore'],
        },
      ],
    });
    expect(groups(days).length).toBe(366);
    expect(groups(days)[365]['count of records, difference from a year before']).toBeNull();
    for (const [named, label] of [
      ['start', '2023/24'],
      ['end', '2024'],
    ]) {
      const fiscal = answered(
        { length: 1, columns: [scalarColumn('Day', 'date', [dayNumber(2024, 3, 31)])] },
        {
          tallies: [
            {
              kind: 'periods',
              column: 'Day',
              levels: ['year', 'quarter'],
              calendar: { yearStartsIn: 4, yearNamedBy: named },
              measures: [{ kind: 'records' }],
            },
          ],
        },
      );
      expect(rows(fiscal).map((g) => [g['Period'], g['From']])).toEqual([
        ['All periods', null],
        [label, '2023-04-01'],
        ['Jan–Mar 2024', '2024-01-01'],
      ]);
    }
  });

  it('names with quotes, commas, line breaks and any script', () => {
    const odd = ['a "b", c', "it's\nnew", 'Ærø 渡船', '<b>x</b>', '=1+1'];
    const list: Table = {
      length: 5,
      columns: [textColumn('K "x", y', odd), scalarColumn('v', 'number', [1, 2, 3, 4, 5])],
    };
    const { input, result } = answeredOn(list, {
      computed: [{ name: 'w', expression: '"K ""x"", y" || \'!\'' }],
      tallies: [
        {
          kind: 'ledger',
          groups: [{ column: 'K "x", y' }],
          measures: [{ kind: 'last', column: 'w' }],
        },
      ],
    });
    expect(
      groups(result)
        .map((g) => g['last of w'])
        .sort(),
    ).toEqual(odd.map((o) => `${o}!`).sort());
    result.tallies[0].tables[0].rows
      .slice(1)
      .forEach((_, k) =>
        expect(
          behind(input, result.tallies[0], { table: 0, row: k + 1, column: 1 }).records.length,
        ).toBe(1),
      );
  });

  it('100,000 groups; a cross-tab of 200 columns, and the limit in words', () => {
    const n = 100_000;
    const many: Table = {
      length: n,
      columns: [
        scalarColumn(
          'k',
          'number',
          Array.from({ length: n }, (_, i) => i),
        ),
        scalarColumn(
          'c',
          'number',
          Array.from({ length: n }, (_, i) => i % 200),
        ),
        scalarColumn(
          'd',
          'number',
          Array.from({ length: n }, (_, i) => i % 300),
        ),
      ],
    };
    const result = answered(many, {
      tallies: [
        { kind: 'ledger', groups: [{ column: 'k' }], measures: [{ kind: 'sum', column: 'c' }] },
        {
          kind: 'crosstab',
          down: [{ column: 'd' }],
          across: [{ column: 'c' }],
          measures: [{ kind: 'records' }],
        },
      ],
    });
    expect(result.tallies[0].tables[0].rows.length).toBe(n + 1);
    expect(result.tallies[1].tables[0].columns.length).toBe(202);
    expect(result.tallies.every((t) => t.footing.foots)).toBe(true);
    expect(() =>
      answered(many, {
        tallies: [
          {
            kind: 'crosstab',
            down: [{ column: 'c' }],
            across: [{ column: 'd' }],
            measures: [{ kind: 'records' }],
          },
        ],
      }),
    ).toThrow(/This makes 300 columns across; at most 256/);
  });

  it('huge and tiny values, and sums beyond all doubles', () => {
    const list: Table = {
      length: 4,
      columns: [scalarColumn('v', 'number', [1e308, 1e308, 5e-324, -1e308])],
    };
    const [all] = rows(
      answered(list, {
        tallies: [
          {
            kind: 'ledger',
            measures: [
              { kind: 'sum', column: 'v' },
              { kind: 'min', column: 'v' },
              { kind: 'max', column: 'v' },
            ],
          },
        ],
      }),
    );
    expect([all['sum of v'], all['lowest of v'], all['highest of v']]).toEqual([
      1e308, -1e308, 1e308,
    ]);
    const cancel: Table = {
      length: 4,
      columns: [scalarColumn('v', 'number', [1e16, 1, -1e16, 1])],
    };
    expect(
      rows(
        answered(cancel, {
          tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'v' }] }],
        }),
      )[0]['sum of v'],
    ).toBe(2);
  });
});
