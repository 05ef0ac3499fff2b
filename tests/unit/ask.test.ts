import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import type { Recipe } from '$lib/core/read/recipe';
import { Tally } from '$lib/core/tally/kinds';
import { TallyResult } from '$lib/core/tally/result';
import { Engine } from '$lib/engine/engine';
import { Replies } from '$lib/engine/protocol';
import { AskRefused } from '$lib/core/ask/answer';
import { AskResult } from '$lib/core/ask/result';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { dayNumber } from '$lib/core/table/calendar';
import type { Table } from '$lib/core/table/table';
import { behind } from '$lib/core/tally/behind';
import { answered, faultsOf, groups, rows, standing } from '../support/ask';

const day = (text: string): number => {
  const [y, m, d] = text.split('-').map(Number);
  return dayNumber(y, m, d);
};

const small: Table = {
  length: 6,
  columns: [
    textColumn('Region', ['North', 'North', 'North', 'South', 'South', null]),
    textColumn('Depot', ['A', 'A', 'B', 'C', 'D', 'D']),
    scalarColumn('Sum', 'number', [10, 5, 12, 7, 9, 1], { unit: '£' }),
    scalarColumn(
      'Day',
      'date',
      ['2025-01-31', '2025-02-01', '2025-04-30', '2024-12-31', '2025-05-01', '2025-05-02'].map(day),
    ),
  ],
};
const ledger = (more: object = {}) => ({
  kind: 'ledger',
  groups: [{ column: 'Region' }],
  measures: [{ kind: 'sum', column: 'Sum' }],
  ...more,
});

describe('a bad ask names every fault with its path and a remedy', () => {
  const faults = (ask: Record<string, unknown>): string[] => faultsOf(() => answered(small, ask));

  it.each<[string, Record<string, unknown>, RegExp[]]>([
    ['nothing', {}, [/^tallies: This is missing/]],
    ['no tally', { tallies: [] }, [/^tallies: .*The least is 1/]],
    [
      'an unknown kind',
      { tallies: [{ kind: 'ledgr' }] },
      [/^tallies\[0\]\.kind: “?"?ledgr.*Did you mean “ledger”/],
    ],
    [
      'an unknown key',
      { tallies: [ledger({ mesures: [] })] },
      [/^tallies\[0\]\.mesures: .*means nothing here/],
    ],
    [
      'a misspelt measure',
      { tallies: [ledger({ measures: [{ kind: 'avrage', column: 'Sum' }] })] },
      [/^tallies\[0\]\.measures\[0\]\.kind: .*not possible/],
    ],
    [
      'a missing column',
      { tallies: [ledger({ groups: [{ column: 'Regoin' }] })] },
      [/^tallies\[0\]\.groups\[0\]\.column: There is no column “Regoin”. Did you mean “Region”/],
    ],
    [
      'a sum of text',
      { tallies: [ledger({ measures: [{ kind: 'sum', column: 'Depot' }] })] },
      [/measures\[0\]\.column: “Depot” is text, but this needs a number.*Take “Sum”/],
    ],
    [
      'a measure without its column',
      { tallies: [ledger({ measures: [{ kind: 'mean' }] })] },
      [/measures\[0\]\.column: The mean needs a column/],
    ],
    [
      'a weighted mean without weights',
      { tallies: [ledger({ measures: [{ kind: 'weightedMean', column: 'Sum' }] })] },
      [/measures\[0\]\.other: .*weights/],
    ],
    [
      'a faulty expression',
      { computed: [{ name: 'x', expression: 'Sum +' }], tallies: [ledger()] },
      [/^computed\[0\]\.expression: Character 6: The expression ends too early/],
    ],
    [
      'a circle',
      {
        computed: [
          { name: 'a', expression: 'b + 1' },
          { name: 'b', expression: 'c' },
          { name: 'c', expression: 'a' },
        ],
        tallies: [ledger()],
      },
      [/computed\[0\]: .*circle: “a” → “b” → “c” → “a”/],
    ],
    [
      'a name twice',
      { computed: [{ name: 'Sum', expression: '1' }], tallies: [ledger()] },
      [/^computed\[0\]: There is a column “Sum” already/],
    ],
    [
      'a condition that does not suit',
      {
        ladder: {
          rungs: [
            {
              condition: {
                kind: 'leaf',
                column: 'Region',
                test: { test: 'compare', op: 'gt', value: 3 },
              },
            },
          ],
        },
        tallies: [ledger()],
      },
      [/^ladder\.rungs\[0\]\.condition\.test: .*is text/],
    ],
    [
      'a bad regular expression',
      {
        ladder: {
          rungs: [
            { condition: { kind: 'leaf', column: 'Region', test: { test: 'regex', text: '(' } } },
          ],
        },
        tallies: [ledger()],
      },
      [/not a regular expression/],
    ],
    [
      'a record beyond the list',
      { ladder: { setAside: { records: [6] } }, tallies: [ledger()] },
      [/setAside\.records: There is no record 6/],
    ],
    [
      'a list that is not named',
      {
        joins: [{ list: 'fleet', on: [{ column: 'Depot' }], bring: [{ column: 'x' }] }],
        tallies: [ledger()],
      },
      [/^joins\[0\]\.list: There is no list “fleet”/],
    ],
    [
      'levels that do not nest',
      {
        tallies: [
          {
            kind: 'periods',
            column: 'Day',
            levels: ['month', 'year'],
            measures: [{ kind: 'records' }],
          },
        ],
      },
      [/levels\[1\]: years do not fit into months/],
    ],
    [
      'edges that do not rise',
      {
        tallies: [
          { kind: 'frequency', key: { column: 'Sum', bands: { by: 'edges', edges: [5, 1] } } },
        ],
      },
      [/key\.bands: The edges must rise/],
    ],
    [
      'a period of text',
      { tallies: [{ kind: 'frequency', key: { column: 'Depot', period: 'month' } }] },
      [/key\.column: “Depot” is text, but this needs a date/],
    ],
    [
      'an outer tally of a column the inner has not',
      {
        tallies: [
          {
            kind: 'nested',
            inner: ledger(),
            outer: { kind: 'ledger', measures: [{ kind: 'max', column: 'm9' }] },
          },
        ],
      },
      [/^tallies\[0\]\.outer\.measures\[0\]\.column: There is no column “m9”/],
    ],
  ])('%s', (_, ask, wanted) => {
    const found = faults(ask);
    wanted.forEach((w) => expect(found.join('\n')).toMatch(w));
    expect(found.length).toBe(wanted.length);
  });

  it('measures that look beyond their group only where they mean something', () => {
    const share = { kind: 'shareOfParent', column: 'Sum' };
    const at = (tally: object): string[] => faults({ tallies: [tally] });
    expect(at(ledger({ measures: [share, { kind: 'running', column: 'Sum' }] }))).toEqual([]);
    expect(at({ kind: 'ranking', groups: [{ column: 'Depot' }], by: share })).toEqual([]);
    expect(
      at({
        kind: 'crosstab',
        down: [{ column: 'Region' }],
        across: [{ column: 'Depot' }],
        measures: [share],
      })[0],
    ).toMatch(/measures\[0\]\.kind: The share of the group above has no meaning/);
    expect(
      at({
        kind: 'conditional',
        key: { column: 'Depot' },
        columns: [{ measure: { kind: 'recordsOfTotal' } }],
      }).length,
    ).toBe(1);
    expect(
      at({
        kind: 'periods',
        column: 'Day',
        levels: ['year'],
        measures: [{ kind: 'running', column: 'Sum' }],
      }).length,
    ).toBe(1);
  });

  it('all faults at once, never only the first', () => {
    const found = faults({
      sort: [{ column: 'nowhere' }],
      tallies: [
        ledger({ groups: [{ column: 'x' }], measures: [{ kind: 'sum', column: 'Depot' }] }),
        { kind: 'growth' },
      ],
    });
    expect(found.map((f) => f.split(':')[0])).toEqual([
      'sort[0].column',
      'tallies[0].groups[0].column',
      'tallies[0].measures[0].column',
      'tallies[1].series',
    ]);
  });

  it('whatever is sent, the answer is a result or a list of faults', () => {
    const junk = fc.letrec((tie) => ({
      any: fc.oneof(
        { maxDepth: 3 },
        fc.constantFrom('ledger', 'Sum', 'Region', 3, null, true, 'kind'),
        fc.array(tie('any'), { maxLength: 3 }),
        fc.dictionary(
          fc.constantFrom('kind', 'groups', 'measures', 'column', 'tallies', 'key', 'p'),
          tie('any'),
        ),
      ),
    })).any;
    fc.assert(
      fc.property(junk, (tally) => {
        faultsOf(() => answered(small, { tallies: [tally] }));
      }),
      { numRuns: 300 },
    );
  });
});

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
        setAside: { records: [0] },
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
    expect(result.tallies[0].says).toBe(
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
        setAside: { records: [0] },
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
      ['blank', 0, null],
    ]);
    expect(linked.prepared[0].says).toBe(
      '“sums” holds 3 records that follow Sailings: Sailings grouped by Region, in the order read. Under each group: sum of Sum.',
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
    expect(frozen.prepared[0].says).toMatch(/frozen on 2026-10-31 from Sailings/);
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
      /^tallies\[0\]: There is no list “bands”/,
    );
  });

  it('sentences read well with 1, 2 and 5 of anything', () => {
    const says = (tally: object): string => answered(small, { tallies: [tally] }).tallies[0].says;
    const keys = ['Region', 'Depot', 'Day', 'Sum', 'expression: Sum * 2'].map((column) => ({
      column,
    }));
    expect(says(ledger({ groups: keys.slice(0, 1), measures: [{ kind: 'records' }] }))).toBe(
      'Sailings grouped by Region, in the order read. Under each group: count of records.',
    );
    expect(
      says(
        ledger({
          groups: keys.slice(0, 2),
          measures: [{ kind: 'records' }, { kind: 'mean', column: 'Sum' }],
        }),
      ),
    ).toBe(
      'Sailings grouped by Region, then Depot, in the order read. Under each group: count of records and mean of Sum.',
    );
    expect(says(ledger({ groups: keys, measures: [] }))).toBe(
      'Sailings grouped by Region, then Depot, then Day, then Sum, then Sum * 2, in the order read.',
    );
    expect(says({ kind: 'percentile', column: 'Sum', percentiles: [50] })).toMatch(
      /^Sailings: a percentile of Sum, definition 7/,
    );
    expect(
      says({ kind: 'percentile', column: 'Sum', percentiles: [1, 2, 3, 4, 5], ranksOf: [1] }),
    ).toMatch(/5 percentiles of Sum.* and the percentile rank of 1 value of Sum/);
    expect(says({ kind: 'spread', columns: ['Sum'] })).toBe('Sailings: how Sum spreads.');
    expect(says({ kind: 'spread', columns: ['Sum', 'Day'] })).toBe(
      'Sailings: how Sum and Day spread.',
    );
    expect(
      says({
        kind: 'periods',
        column: 'Day',
        levels: ['year', 'half'],
        measures: [{ kind: 'sum', column: 'Sum' }],
        against: ['previous'],
        running: true,
        index: {},
      }),
    ).toBe(
      'Sailings: sum of Sum by year and half-year of Day, with the change against the period before, the running total and an index.',
    );
    expect(
      says({
        kind: 'ranking',
        groups: [{ column: 'Region' }, { column: 'Depot' }],
        within: 1,
        by: { kind: 'sum', column: 'Sum' },
        top: 1,
      }),
    ).toBe(
      'Sailings: every Depot ranked by sum of Sum, highest first within each Region, only the first; equal ones share a place, with a gap after (1 2 2 4).',
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
    expect([result.list.records, result.prepared[0].says]).toEqual([
      6,
      '3 records of 6 records have no match in “o” and get blanks.',
    ]);
  });

  it('nested: of each region the highest of the sums by depot, and which', () => {
    const { base, result } = standing(small, {
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
    expect(result.tallies[0].warnings[0].says).toContain('not from the records');
    const row = result.tallies[0].tables[0].rows.findIndex((r) => r.cells[0] === 'North');
    expect([...behind(base, result.tallies[0], { table: 0, row, column: 2 }).records]).toEqual([
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
    const { base, result } = standing(
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
        'Records that came': 1,
        'Records that went': 1,
        'Records that changed': 1,
      },
      {
        Where: 'South',
        Figure: 'sum of Sum',
        Before: 11,
        After: 16,
        Difference: 5,
        Change: 5 / 11,
        'Records that came': 0,
        'Records that went': 0,
        'Records that changed': 1,
      },
    ]);
    expect([...behind(base, result.tallies[0], { table: 0, row: 1, column: 4 }).records]).toEqual([
      4,
    ]);
  });
});

describe('the engine answers tallies over what a bench counts', () => {
  const recipe: Recipe = {
    format: 'delimited',
    delimiter: ',',
    quote: '"',
    encoding: 'utf-8',
    header: true,
    skipLines: 0,
    width: 1,
    columns: [],
  };

  it('with the ladder and the order of the bench, and opens their figures', () => {
    const engine = new Engine(small, recipe, 'Sailings');
    const doc = newBench(small, 1);
    doc.ladder.rungs = [
      { id: 'a', on: true, condition: { kind: 'expression', not: false, expression: 'Sum >= 5' } },
    ];
    doc.ladder.setAside.records = [2];
    engine.now({ do: 'reckon', doc });
    const tally = Tally.parse({
      kind: 'crosstab',
      down: [{ column: 'Region' }],
      across: [{ column: 'Depot' }],
      measures: [{ kind: 'sum', column: 'Sum' }],
    });
    const reply = Replies.tally.parse(engine.now<'tally'>({ do: 'tally', tally }));
    expect([reply.records, reply.footing.foots]).toEqual([4, true]);
    const result = TallyResult.parse(reply);
    const place = {
      table: 0,
      row: reply.tables[0].rows.findIndex((r) => r.cells[0] === 'North'),
      column: 'all.m1',
    };
    const opened = Replies.tallyBehind.parse(
      engine.now<'tallyBehind'>({ do: 'tallyBehind', result, place }),
    );
    expect(opened).toEqual({
      figure: 15,
      records: [0, 1],
      values: 2,
      blanks: 0,
      unread: 0,
      arithmetic: '2 values added up.',
      warning: '',
    });
  });

  it('refuses one that does not fit in words, and a step on a column that is gone is off', () => {
    const engine = new Engine(small, recipe, 'Sailings');
    const doc = newBench(small, 1);
    doc.ladder.rungs = [
      { id: 'a', on: true, condition: { kind: 'expression', not: false, expression: 'Gone > 5' } },
    ];
    expect(Replies.reckon.parse(engine.now({ do: 'reckon', doc })).counted.records).toBe(6);
    const tally = Tally.parse({ kind: 'percentile', column: 'Depot' });
    expect(() => engine.now({ do: 'tally', tally })).toThrow(/tally\.column: “Depot” is text/);
  });
});

describe('growth', () => {
  it('13 values are 12 intervals, and the mean of rates is not the compound rate', () => {
    const months = Array.from({ length: 13 }, (_, k) =>
      day(`${2024 + Math.floor(k / 12)}-${String((k % 12) + 1).padStart(2, '0')}-01`),
    );
    const list: Table = {
      length: 13,
      columns: [
        scalarColumn('M', 'date', months, { grain: 'month' }),
        scalarColumn(
          'v',
          'number',
          [100, 150, 75, 100, 100, 100, 100, 100, 100, 100, 100, 100, 110],
        ),
      ],
    };
    const result = answered(list, {
      tallies: [
        {
          kind: 'growth',
          series: { column: 'M', period: 'month', measure: { kind: 'sum', column: 'v' } },
        },
      ],
    });
    const [g] = rows(result);
    expect([
      g['Intervals'],
      g['Compound rate per period'],
      g['Compound rate per year'],
      g['Total growth'],
    ]).toEqual(
      [12, expect.closeTo(1.1 ** (1 / 12) - 1, 12), expect.closeTo(0.1, 12), 0.1].map((v) =>
        typeof v === 'number' && v === 0.1 ? expect.closeTo(0.1, 12) : v,
      ),
    );
    expect(result.tallies[0].warnings.map((w) => w.code)).toEqual(['intervals', 'mean-differs']);
    expect(result.tallies[0].warnings[0].says).toContain('12 months between 13 values');
  });

  it('is refused with the reason where nothing can grow at a rate, and between dates by 365.25 days', () => {
    const growth = (values: object) => answered(small, { tallies: [{ kind: 'growth', values }] });
    expect(growth({ first: 0, last: 5, intervals: 2 }).tallies[0].warnings[1].says).toMatch(
      /No compound rate: The first value is 0/,
    );
    expect(
      rows(growth({ first: 5, last: -5, intervals: 2 }))[0]['Compound rate per period'],
    ).toBeNull();
    expect(
      rows(growth({ first: 100, last: 121, firstDate: '2020-01-01', lastDate: '2022-01-01' }))[0][
        'Compound rate per period'
      ],
    ).toEqual(expect.closeTo(1.21 ** (365.25 / 731) - 1, 12));
    expect(
      rows(growth({ first: 100, last: 121, intervals: 2 }))[0]['Compound rate per period'],
    ).toEqual(expect.closeTo(0.1, 12));
  });
});

describe('forecast', () => {
  const series = (n: number, of: (t: number) => number): Table => ({
    length: n,
    columns: [
      scalarColumn(
        'M',
        'date',
        Array.from({ length: n }, (_, t) => dayNumber(2020 + Math.floor(t / 12), (t % 12) + 1, 1)),
        { grain: 'month' },
      ),
      scalarColumn(
        'v',
        'number',
        Array.from({ length: n }, (_, t) => of(t)),
      ),
    ],
  });
  const ask = (more: object) => ({
    tallies: [
      {
        kind: 'forecast',
        series: { column: 'M', period: 'month', measure: { kind: 'sum', column: 'v' } },
        ...more,
      },
    ],
  });

  it('carries an exact line on, and says what it stands on', () => {
    const result = answered(
      series(24, (t) => 10 + 3 * t),
      ask({ method: 'line', horizon: 2 }),
    );
    expect(rows(result).map((r) => [r['Period'], r['Forecast of sum of v']])).toEqual([
      ['Jan 2022', expect.closeTo(82, 8)],
      ['Feb 2022', expect.closeTo(85, 8)],
    ]);
    expect(result.tallies[0].warnings[0].says).toBe(
      'It stands on 24 points, from Jan 2020 to Dec 2021.',
    );
  });

  it('refuses a gap until it is told what to do, and warns of few points', () => {
    const gap: Table = {
      length: 3,
      columns: [
        scalarColumn('M', 'date', [day('2025-01-05'), day('2025-02-05'), day('2025-04-05')]),
        scalarColumn('v', 'number', [1, 2, 4]),
      ],
    };
    expect(() => answered(gap, ask({ method: 'line' }))).toThrow(AskRefused);
    const filled = answered(
      gap,
      ask({ method: 'line', gaps: 'interpolate', incompleteLast: 'keep', horizon: 1 }),
    );
    expect(rows(filled)[0]['Forecast of sum of v']).toEqual(expect.closeTo(5, 10));
    expect(filled.tallies[0].warnings.map((w) => w.code)).toEqual(
      expect.arrayContaining(['few-points', 'under-two-seasons', 'gaps-filled']),
    );
    expect(
      rows(answered(gap, ask({ method: 'naive', gaps: 'zero', horizon: 1 })))[0][
        'Forecast of sum of v'
      ],
    ).toBe(0);
  });

  it('shows the table it chose by', () => {
    const result = answered(
      series(48, (t) => 100 + t + [0, 40, -30, 9, 5, 1, 0, 2, 7, -12, 8, 3][t % 12]),
      ask({}),
    );
    const tried = rows(result, 'methods');
    expect(tried.length).toBe(13);
    const chosen = tried.filter((r) => r['Chosen'] === 'yes');
    expect(chosen.length).toBe(1);
    const errors = tried
      .map((r) => r['Mean absolute error'])
      .filter((v): v is number => typeof v === 'number');
    expect(chosen[0]['Mean absolute error']).toBeLessThanOrEqual(Math.min(...errors) + 1e-6);
  });
});

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
      for (const t of result.tallies) expect([t.says, t.footing.foots]).toEqual([t.says, true]);
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
    expect(result.tallies[2].warnings[0].says).toBe('A tie at the edge is kept: 4 instead of 1.');
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
    expect(
      groups(days)[365]['count of records, difference from the same period a year before'],
    ).toBeNull();
    for (const [named, label] of [
      ['start', '2023'],
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
    const { base, result } = standing(list, {
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
          behind(base, result.tallies[0], { table: 0, row: k + 1, column: 1 }).records.length,
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
    expect([all['lowest of v'], all['highest of v']]).toEqual([-1e308, 1e308]);
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

describe('properties of every table', () => {
  const record = fc.record({
    k: fc.constantFrom('a', 'b', 'c', null),
    g: fc.constantFrom('x', 'y', null),
    v: fc.option(fc.integer({ min: -30, max: 60 }), { nil: null }),
    d: fc.integer({ min: day('2024-01-01'), max: day('2025-12-31') }),
  });
  const records = fc.array(record, { minLength: 1, maxLength: 30 });
  type Rec = { k: string | null; g: string | null; v: number | null; d: number };
  const tableOf = (all: readonly Rec[]): Table => ({
    length: all.length,
    columns: [
      textColumn(
        'k',
        all.map((r) => r.k),
      ),
      textColumn(
        'g',
        all.map((r) => r.g),
      ),
      scalarColumn(
        'v',
        'number',
        all.map((r) => r.v),
      ),
      scalarColumn(
        'd',
        'date',
        all.map((r) => r.d),
      ),
    ],
  });
  const measures = [
    { kind: 'sum', column: 'v' },
    { kind: 'mean', column: 'v' },
    { kind: 'distinct', column: 'k' },
    { kind: 'median', column: 'v' },
  ];
  const tallies = [
    {
      kind: 'crosstab',
      down: [{ column: 'k' }],
      across: [{ column: 'g' }],
      measures,
      shares: ['row', 'total'],
    },
    {
      kind: 'periods',
      column: 'd',
      levels: ['year', 'half', 'month'],
      measures,
      against: ['previous', 'yearBefore'],
      calendar: { yearStartsIn: 7 },
    },
    {
      kind: 'frequency',
      key: { column: 'v', bands: { by: 'width', width: 7, origin: 3 } },
      measures,
    },
    { kind: 'frequency', key: { column: 'v', bands: { by: 'equalCount', count: 4 } } },
    {
      kind: 'conditional',
      key: { column: 'g' },
      columns: measures.map((measure) => ({ measure })),
    },
    {
      kind: 'ranking',
      groups: [{ column: 'k' }, { column: 'g' }],
      within: 1,
      by: measures[0],
      ties: 'noGap',
    },
    { kind: 'spread', columns: ['v'], key: { column: 'k' } },
    { kind: 'percentile', column: 'v', key: { column: 'g' }, percentiles: [0, 33, 100] },
  ];
  const plain = (result: AskResult) =>
    result.tallies.map((t) =>
      t.tables.map((table) =>
        table.rows.map((r) =>
          r.cells.map((c) => (typeof c === 'number' ? Number(c.toPrecision(10)) : c)),
        ),
      ),
    );

  it('the order of records never changes it; it foots; each band counts each value once', () => {
    fc.assert(
      fc.property(records, (all) => {
        const result = answered(tableOf(all), { tallies });
        expect(plain(answered(tableOf([...all].reverse()), { tallies }))).toEqual(plain(result));
        for (const t of result.tallies) expect([t.says, t.footing.failure]).toEqual([t.says, null]);
        for (const k of [2, 3]) {
          const { rows: lines, columns } = result.tallies[k].tables[0];
          const at = columns.findIndex((c) => c.key === 'count');
          expect(lines.slice(1).reduce((s, r) => s + Number(r.cells[at]), 0)).toBe(all.length);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('narrowing and then reckoning equals reckoning the narrowed records alone', () => {
    fc.assert(
      fc.property(records, fc.integer({ min: -30, max: 60 }), (all, limit) => {
        const rung = { condition: { kind: 'expression', expression: `v >= ${limit}` } };
        const kept = all.filter((r) => r.v !== null && r.v >= limit);
        if (kept.length === 0) return;
        expect(plain(answered(tableOf(all), { ladder: { rungs: [rung] }, tallies }))).toEqual(
          plain(answered(tableOf(kept), { tallies })),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('every group stands on as many records as it counts', () => {
    fc.assert(
      fc.property(records, (all) => {
        const { base, result } = standing(tableOf(all), { tallies });
        for (const t of result.tallies) {
          const [main] = t.tables;
          const column = main.columns.findIndex((c) => c.measure?.kind === 'records' && !c.where);
          if (column < 0) continue;
          main.rows.forEach((r, row) =>
            expect([
              t.kind,
              row,
              behind(base, t, { table: 0, row, column }).records.length,
            ]).toEqual([t.kind, row, r.cells[column]]),
          );
        }
      }),
      { numRuns: 40 },
    );
  });
});
