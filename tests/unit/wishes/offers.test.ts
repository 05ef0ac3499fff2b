import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import { respelled } from '$lib/core/wish/respelled';
import { exampleWishes } from '$lib/core/wish/examples';
import { ListWords } from '$lib/core/wish/listWords';
import type { Offer } from '$lib/core/wish/offers';
import { answered } from '../../support/ask';
import { readDemo } from '../../support/demo';
import { sailingsInSql } from '../../support/sql';
import { day } from '../../support/smallList';
import { offersOf } from '../../support/wish';

const sailings = readDemo('sailings').reading.table;
const ofSailings = offersOf(sailings, 'Sailings');

/** Orders of a bakery: columns that are words of the grammar, and a value in two columns. */
const orders: Table = {
  length: 6,
  columns: [
    textColumn('Shop', ['Mill Lane', 'Harbour', 'Mill Lane', 'Old Town', 'Harbour', null]),
    textColumn('Item', ['Rye', 'Bun', 'Rye', 'Tart', 'Rye', 'Bun']),
    textColumn('Baker', ['Ida', 'Bo', 'Ida', 'Bo', 'Harbour', 'Bo']),
    scalarColumn('Kilos', 'number', [10, 4, 7, 2, 9, 1], { unit: 'kg' }),
    scalarColumn('Price', 'number', [30, 12, 21, 9, 27, 3], { unit: '£' }),
    scalarColumn(
      'Day',
      'date',
      ['2025-01-02', '2025-02-03', '2025-02-04', '2026-01-05', '2026-02-06', '2026-03-07'].map(day),
    ),
  ],
};
const ofOrders = offersOf(orders, 'Bakery orders', [
  {
    name: 'Spring plan',
    columns: [
      { name: 'Item', type: 'text' },
      { name: 'Planned kilos', type: 'number' },
    ],
  },
]);

/** What a wish begins: the kind, what it narrows to, and the words that are named. */
const CORPUS: readonly (readonly [
  ask: (typed: string) => Offer[],
  typed: string,
  kind: string,
  narrow: string[],
  left: string[],
])[] = [
  [ofOrders, 'kilos by item against the spring plan', 'reconciliation', [], []],
  [ofOrders, 'reconcile kilos with spring plan', 'reconciliation', [], []],
  [ofOrders, 'kilos by item against the autumn plan', 'ledger', [], ['against the autumn plan']],
  [ofOrders, 'kilos by shop against spring plan', 'reconciliation', [], ['by shop']],
  [ofSailings, 'fares by route without gale', 'ledger', ['Weather is not gale'], []],
  [ofSailings, 'top 3 vessels by fares in 2024', 'ranking', ['Sailed on is in 2024'], []],
  [ofSailings, 'fares by month, freight only', 'periods', ['Route is Outer Freight'], []],
  [ofSailings, 'how many sailings cancelled by cause', 'ledger', ['Cancelled is yes'], []],
  [ofSailings, 'top 2 vessels in each route', 'ranking', [], []],
  [ofSailings, 'fares per pot', 'ledger', [], ['per pot']],
  [ofSailings, 'fares in zzyzx by route', 'ledger', [], ['in zzyzx']],
  [ofSailings, 'median delay by vessel', 'ledger', [], []],
  [ofSailings, 'average delay over 10 by vessel', 'ledger', ['Delay is over 10'], []],
  [ofSailings, 'standard deviation of delay by vessel', 'ledger', [], []],
  [ofSailings, 'gale or fog by route', 'ledger', ['Weather is gale or fog'], []],
  [
    ofSailings,
    'fares by route and month since 2024',
    'periods',
    ['Sailed on is from Mon 1 Jan 2024'],
    [],
  ],
  [
    ofSailings,
    'fares by month after March 2025',
    'periods',
    ['Sailed on is after Mon 31 Mar 2025'],
    [],
  ],
  [ofSailings, 'fares by route before 2024', 'ledger', ['Sailed on is before Mon 1 Jan 2024'], []],
  [ofSailings, 'fares by month, quarter and year', 'periods', [], []],
  [ofSailings, 'boarded for each route, next 12 months', 'forecast', [], []],
  [ofSailings, '90 % of delay, and where 20', 'percentile', [], []],
  [ofSailings, 'rank vessels by fares within route, first 3', 'ranking', [], []],
  [ofSailings, 'best vessel of each route by fares', 'nested', [], []],
  [ofSailings, 'delay in bands 0, 1, 5, 10', 'frequency', [], []],
  [ofSailings, 'how often each cause', 'frequency', [], []],
  [ofSailings, 'growth of fares from 2023 to 2025', 'growth', [], []],
  [ofSailings, 'what moved fares from 2024 to 2025', 'contributions', [], []],
  [
    ofSailings,
    'count, fares and mean delay where delay at least 10, where weather is gale or fog, both and neither, by route',
    'conditional',
    [],
    [],
  ],
  [ofOrders, 'kilos by shop', 'ledger', [], []],
  [ofOrders, 'kilos by shop without rye', 'ledger', ['Item is not Rye'], []],
  [ofOrders, 'price by item, mill lane only', 'ledger', ['Shop is Mill Lane'], []],
  [ofOrders, 'price by baker all but tarts', 'ledger', ['Item is not Tart'], []],
  [ofOrders, 'kilos between 4 and 9 by item', 'ledger', ['Kilos is between 4 and 9'], []],
  [ofOrders, 'price by item where the shop is shut', 'ledger', [], ['where', 'shut']],
  [ofOrders, 'price by month in 2026', 'periods', ['Day is in 2026'], []],
  [ofOrders, 'highest price by shop', 'ledger', [], []],
  [ofOrders, 'price by shop, baker is not blank', 'ledger', ['Baker is not blank'], []],
  [ofOrders, 'price by shop for vegans', 'ledger', [], ['for vegans']],
];

describe('a wish', () => {
  it.each(CORPUS.map((row) => [row[1], ...row] as const))(
    '%s',
    (_, ask, typed, kind, narrow, left) => {
      const [first] = ask(typed);
      expect([first.kind, [...first.narrowWords], [...first.left]]).toEqual([kind, narrow, left]);
    },
  );

  it('that only narrows begins no tally', () => {
    expect(ofSailings('delay between 5 and 20')).toEqual([]);
    expect(ofSailings('without gales')).toEqual([]);
    expect(ofOrders('"mill lane" only')).toEqual([]);
  });

  it('takes a word for the column that the list calls so, before the question it would name', () => {
    const seasons = offersOf(
      {
        ...orders,
        columns: [
          ...orders.columns,
          textColumn('Season', ['wet', 'dry', 'wet', 'dry', 'wet', 'dry']),
        ],
      },
      'Bakery orders',
    );
    const [first] = seasons('kilos by season');
    expect([first.kind, first.sentence]).toEqual([
      'ledger',
      expect.stringContaining('grouped by Season'),
    ]);
    expect(ofOrders('kilos next season')[0].kind).toBe('forecast');
  });

  it('takes a text in quotes for one value, whatever stands in it', () => {
    expect(ofOrders('price by item in "mill lane"')[0].narrowWords).toEqual(['Shop is Mill Lane']);
    expect(ofOrders('price by shop "rye" "bun"')[0].left).toEqual([]);
  });

  it('names a word that means nothing, wherever it is put', () => {
    const understood = CORPUS.filter(([, , , , left]) => left.length === 0);
    fc.assert(
      fc.property(
        fc.constantFrom(...understood),
        fc.stringMatching(/^q[bcdfghjklmnpqrstvwxz]{4,9}$/),
        fc.nat(20),
        ([ask, typed], word, at) => {
          const words = typed.split(' ');
          const k = at % (words.length + 1);
          const offers = ask([...words.slice(0, k), word, ...words.slice(k)].join(' '));
          for (const { left } of offers) expect(left.join(' ')).toContain(word);
        },
      ),
      { numRuns: 200, seed: 33 },
    );
  });

  it.each([
    [
      'fares by route without gale',
      "select route k, sum(fares) v from s where weather is not null and weather <> 'gale' group by lower(trim(route))",
    ],
    [
      'fares by vessel in 2024',
      "select vessel k, sum(fares) v from s where sailed_on like '2024%' group by vessel",
    ],
    [
      'fares by vessel, delay at least 10',
      'select vessel k, sum(fares) v from s where delay >= 10 group by vessel',
    ],
    [
      'average delay over 10 by vessel',
      'select vessel k, avg(delay) v from s where delay > 10 group by vessel',
    ],
    [
      'fares per boarded by vessel',
      'select vessel k, sum(fares) * 1.0 / sum(boarded) v from s group by vessel',
    ],
  ])('comes to the figures of SQL: %s', (typed, sql) => {
    const [{ tally, narrow }] = ofSailings(typed);
    const rungs = narrow.map((condition) => ({ condition }));
    const result = answered(sailings, { ladder: { rungs }, tallies: [tally] });
    const figures = result.tallies[0].tables[0].rows
      .filter(({ kind }) => kind === 'group')
      .map(({ cells }) => Number(cells.at(-1)));
    const want = (sailingsInSql().prepare(sql).all() as { v: number | null }[]).flatMap(
      ({ v }) => v ?? [],
    );
    const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);
    expect(figures.length).toBe(want.length);
    sorted(figures).forEach((v, k) => expect(v).toBeCloseTo(sorted(want)[k], 6));
  });
});

describe('words that are near', () => {
  it('are taken for those of the list, and it is said', () => {
    const [first] = ofSailings('fares by vesel');
    expect([first.left, first.taken]).toEqual([[], [{ typed: 'vesel', takenFor: 'vessel' }]]);
    expect(first.sentence).toContain('Vessel');
    const [value] = ofSailings('fares by month, Nesness only');
    expect([value.left, value.taken[0]]).toEqual([[], { typed: 'Nesness', takenFor: 'nessness' }]);
    const [measure] = ofSailings('averge delay by route');
    expect([measure.left, measure.taken[0].takenFor]).toEqual([[], 'average']);
  });

  it('are written anew where they stand, not within another word', () => {
    const [first] = ofSailings('fares by vessel, vesse');
    expect(first.left.concat(first.taken.map(({ typed }) => typed)).length).toBeLessThan(2);
    expect(respelled('months by vesel month', ['vesel'], new ListWords(sailings))?.typed).toBe(
      'months by vessel month',
    );
    expect(respelled('routes and rout', ['rout'], new ListWords(sailings))?.typed).toBe(
      'routes and route',
    );
  });

  it('that are not understood all the same are told as they were typed', () => {
    const [first] = ofOrders('kilos by shp, bakr');
    expect([first.left, first.taken]).toEqual([['by shp'], [{ typed: 'bakr', takenFor: 'baker' }]]);
  });

  it('are none where they are short, in quotes, or begin otherwise', () => {
    for (const typed of ['fares by rte', 'fares by month, "Nesness" only', 'fares by tessel'])
      expect([typed, ofSailings(typed)[0]?.taken ?? []]).toEqual([typed, []]);
  });
});

describe('times told from the last day of the list', () => {
  it.each([
    ['this month', '"period":"month","days":["2026-06-01"]'],
    ['last quarter', '"period":"quarter","days":["2026-01-01"]'],
    ['last year', '"period":"year","days":["2025-01-01"]'],
    ['last 2 months', '"from":"2026-05-01","to":"2026-06-30"'],
  ])('%s', (words, days) => {
    const [first] = ofSailings(`fares by route ${words}`);
    expect(first.left).toEqual([]);
    expect(JSON.stringify(first.narrow)).toContain(days);
  });

  it('are no narrowing where they are set against', () => {
    expect(
      ofSailings('fares by month compared with last year').every(
        ({ narrow }) => narrow.length === 0,
      ),
    ).toBe(true);
  });
});

describe('wishes to begin with', () => {
  const examplesOf = (table: Table, name: string): string[] =>
    exampleWishes(
      new ListWords(table),
      { records: table.length, columns: finish(columnFacts(table)), lead: null, lists: [] },
      name,
    );

  it('are of the list itself, and understood to the last word', () => {
    expect(examplesOf(sailings, 'Sailings')).toEqual([
      'Boarded by Route',
      'mean Vehicles by month',
      'top 3 Vessel by Boarded',
    ]);
    const small = examplesOf(orders, 'Bakery orders');
    expect(small).toHaveLength(3);
    for (const wish of small) expect([wish, ofOrders(wish)[0].left]).toEqual([wish, []]);
  });

  it('are none where a list has nothing to group by or to add up', () => {
    const names: Table = { length: 2, columns: [textColumn('Note', ['one long', 'another'])] };
    expect(examplesOf(names, 'Notes').every((wish) => wish.includes('Note'))).toBe(true);
    expect(examplesOf({ length: 1, columns: [textColumn('Note', ['one'])] }, 'Notes')).toEqual([]);
  });
});

describe('words that mean two things', () => {
  it('a value of two columns is offered in each, what was likeliest first', () => {
    const narrowed = ofOrders('kilos by item, harbour only')
      .slice(0, 2)
      .map(({ narrowWords }) => [...narrowWords]);
    expect(narrowed).toEqual([['Shop is Harbour'], ['Baker is Harbour']]);
  });

  it('a number of places is held by a ranking from the same end alone', () => {
    const [best] = ofOrders('bottom 2 items by kilos');
    expect([best.kind, best.left]).toEqual(['ranking', []]);
    // What moved has its largest first: the last two are not what it does.
    const moved = ofOrders('bottom 2 items by kilos').find(({ kind }) => kind === 'contributions');
    expect(moved?.left).toEqual(['bottom 2']);
    // A ledger ranks within nothing.
    const ledger = ofOrders('top 2 items in each shop by kilos').find(
      ({ kind }) => kind === 'ledger',
    );
    expect(ledger?.left.join(' ')).toContain('top 2');
  });
});
