import { describe, expect, it } from 'vitest';
import type { Table } from '$lib/core/table/table';
import type { Offer } from '$lib/core/wish/offers';
import { answered } from '../../support/ask';
import { inSql, orders, repairs, stock } from '../../support/wishLists';
import { offersOf } from '../../support/wish';

/**
 * Wishes in the way people type them, on lists that are not the demo: what the first offer comes to, against SQL over
 * the same records. Figures are compared as they stand in the lowest groups, in any order.
 */
interface List {
  readonly table: Table;
  readonly offers: (typed: string) => Offer[];
  readonly sql: (query: string) => number[];
}

function listOf(table: Table, name: string): List {
  const db = inSql(table);
  return {
    table,
    offers: offersOf(table, name),
    sql: (query) =>
      (db.prepare(query).raw().all() as (number | null)[][]).flat().flatMap((v) => v ?? []),
  };
}
const REPAIRS = listOf(repairs, 'Repair jobs');
const ORDERS = listOf(orders, 'Bakery orders');
const STOCK = listOf(stock, 'Stock');
/** A list that is called as a column of it is. */
const SHOPS = listOf(orders, 'Shop');

/** Figures that a tally is asked for: of groups at the lowest level, or of all where there are none. */
function figuresOf({ table }: List, { tally, narrow }: Offer): number[] {
  const ladder = { rungs: narrow.map((condition) => ({ condition })) };
  const [{ columns, rows }] = answered(table, { ladder, tallies: [tally] }).tallies[0].tables;
  const groups = rows.filter(({ kind }) => kind === 'group');
  const deepest = Math.max(...groups.map(({ level }) => level));
  const lowest = groups.length ? groups.filter(({ level }) => level === deepest) : rows.slice(0, 1);
  const keys = columns.map(({ key }) => key);
  const own = keys.filter((key) => /^(?:m\d+|c\d+|value|a\d+\.m\d+)$/.test(key));
  const named =
    tally.kind === 'frequency' ? ['count'] : tally.kind === 'crosstab' ? own : own.slice(-1);
  return lowest.flatMap(({ cells }) =>
    named.flatMap((key) => {
      const cell = cells[keys.indexOf(key)];
      // A rollup has its empty periods too.
      if (tally.kind === 'periods' && cells[keys.indexOf('records')] === 0) return [];
      if (typeof cell === 'string') return [Date.parse(cell) / 86_400_000];
      return typeof cell === 'number' ? [cell] : [];
    }),
  );
}

const rising = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);

/** Measures in words with what they are in SQL, groups, and conditions: each with each, of which every third is tried. */
function crossed(
  measures: readonly (readonly [string, string])[],
  groups: readonly (readonly [string, string])[],
  conditions: readonly (readonly [string, string])[],
): (readonly [typed: string, sql: string])[] {
  const all = measures.flatMap(([measure, figure]) =>
    groups.flatMap(([group, by]) =>
      conditions.map(
        ([condition, where]) =>
          [
            [measure, group, condition].filter(Boolean).join(' '),
            `select ${figure} from t ${where && `where ${where}`} ${by && `group by ${by}`}`,
          ] as const,
      ),
    ),
  );
  return all.filter((_, k) => k % 3 === 0);
}

const REPAIR_WISHES = crossed(
  [
    ['charge', 'sum(charge)'],
    ['average charge', 'avg(charge)'],
    ['avg of labour hours', 'avg(labour_hours)'],
    ['how many jobs', 'count(*)'],
    ['highest parts cost', 'max(parts_cost)'],
    ['number of different technicians', 'count(distinct technician)'],
    ['charge per labour hour', 'sum(charge) / sum(labour_hours)'],
    ['charge minus parts cost', 'sum(charge) - sum(parts_cost)'],
    ['show me the total charge', 'sum(charge)'],
    ['count of labour hours', 'count(labour_hours)'],
  ],
  [
    ['', ''],
    ['by workshop', 'workshop'],
    ['per fault', 'fault'],
    ['for each fault', 'fault'],
    ['by workshop and fault', 'workshop, fault'],
    ['by received month', 'substr(received, 1, 7)'],
  ],
  [
    ['', ''],
    ['in northgate', "workshop = 'Northgate'"],
    ['without brakes', "fault <> 'brakes'"],
    ['under warranty only', "under_warranty = 'yes'"],
    ['not under warranty', "under_warranty = 'no'"],
    ['in 2025', "received like '2025%'"],
    ['since march 2025', "received >= '2025-03-01'"],
    ['received before 2025', "received < '2025'"],
    ['collected in 2025', "collected like '2025%'"],
    ['not collected', 'collected is null'],
    ['in q2', "substr(received, 6, 2) in ('04', '05', '06')"],
    [', quay street or hill road only', "workshop in ('Quay Street', 'Hill Road')"],
    [', charge between 100 and 200', 'charge between 100 and 200'],
    [', labour hours over 2 h', 'labour_hours > 2'],
    [', technician contains "o"', "technician like '%o%'"],
    [
      ', (northgate or wheel) and charge under 200',
      "(workshop = 'Northgate' or fault = 'wheel') and charge < 200",
    ],
  ],
);

const ORDER_WISHES = crossed(
  [
    ['kilos', 'sum(kilos)'],
    ['mean price', 'avg(price)'],
    ['lowest price', 'min(price)'],
    ['price per kilo', 'sum(price) / sum(kilos)'],
    ['number of orders', 'count(*)'],
  ],
  [
    ['by item', 'item'],
    ['for every shop', 'shop'],
    ['by shop, baker', 'shop, baker'],
  ],
  [
    ['', ''],
    ['for mill lane', "shop = 'Mill Lane'"],
    ['except tart, plum', "item <> 'Tart, plum'"],
    [', "oat cake" only', "item = 'Oat cake'"],
    ['in june to august 2025', "day between '2025-06-01' and '2025-08-31'"],
    [', item is blank', 'item is null'],
    [', baker is harbour', "baker = 'Harbour'"],
    [', price at most £50', 'price <= 50'],
    [', price 50 or more', 'price >= 50'],
  ],
);

const STOCK_WISHES: (readonly [string, string])[] = [
  ['value by product', 'select sum(value) from t group by product'],
  ['share by product', 'select sum(share) from t group by product'],
  ['rank by product', 'select sum(rank) from t group by product'],
  ['mean by product', 'select sum(mean) from t group by product'],
  ['mean of mean by product', 'select avg(mean) from t group by product'],
  ['mean value by product', 'select avg(value) from t group by product'],
  ['count by product', 'select sum(count) from t group by product'],
  ['sum of count by band', 'select sum(count) from t group by band'],
  ['highest by product', 'select sum(highest) from t group by product'],
  ['highest of highest by product', 'select max(highest) from t group by product'],
  ['highest value by product', 'select max(value) from t group by product'],
  ['value by band', 'select sum(value) from t group by band'],
  ['value by month', 'select sum(value) from t group by month'],
  ['value by year', 'select sum(value) from t group by year'],
  ['value by product in 2024', "select sum(value) from t where year = '2024' group by product"],
  [
    'value by product in january',
    "select sum(value) from t where month = 'January' group by product",
  ],
  ['value by product, high only', "select sum(value) from t where band = 'high' group by product"],
  [
    'lamp and chair by month',
    "select count(*) from t where product in ('Lamp', 'Chair') group by month",
  ],
  ['value of lamps by band', "select sum(value) from t where product = 'Lamp' group by band"],
  ['average rank by band', 'select avg(rank) from t group by band'],
  [
    'top 2 products by value',
    'select v from (select sum(value) v from t group by product order by v desc limit 2)',
  ],
  ['rank product by value', 'select sum(value) from t group by product'],
  ['product by band', 'select count(*) from t group by product, band'],
];

const OTHER_WISHES: (readonly [List, string, string])[] = [
  [
    REPAIRS,
    'top 3 technicians by charge',
    'select v from (select sum(charge) v from t group by technician order by v desc limit 3)',
  ],
  [
    REPAIRS,
    'bottom two faults by parts cost',
    'select v from (select sum(parts_cost) v from t group by fault order by v limit 2)',
  ],
  [
    REPAIRS,
    'technicians by charge, smallest first',
    'select sum(charge) from t group by technician',
  ],
  [REPAIRS, 'which technician has the most jobs', 'select count(*) from t group by technician'],
  [REPAIRS, 'jobs by month', 'select count(*) from t group by substr(received, 1, 7)'],
  [REPAIRS, 'jobs by weekday', "select count(*) from t group by strftime('%w', received)"],
  [
    REPAIRS,
    'charge by month collected',
    'select sum(charge) from t where collected is not null group by substr(collected, 1, 7)',
  ],
  [REPAIRS, 'jobs collected in 2025', "select count(*) from t where collected like '2025%'"],
  [
    REPAIRS,
    'latest received by workshop',
    "select max(julianday(received)) - julianday('1970-01-01') from t group by workshop",
  ],
  [REPAIRS, 'charge per job by workshop', 'select avg(charge) from t group by workshop'],
  [
    REPAIRS,
    'weighted mean of charge by labour hours',
    'select sum(charge * labour_hours) / sum(labour_hours) from t where labour_hours is not null',
  ],
  [
    REPAIRS,
    'charge in 2024 and 2025 by workshop',
    "select sum(charge) filter (where received like '2024%'), sum(charge) filter (where received like '2025%') from t where received < '2026' group by workshop",
  ],
  [
    REPAIRS,
    'charge by fault, not found',
    "select sum(charge) from t where fault = 'not found' group by fault",
  ],
  [
    REPAIRS,
    'charge over 100 by workshop',
    'select sum(charge) from t where charge > 100 group by workshop',
  ],
  [
    REPAIRS,
    'average charge over 100 by workshop',
    'select avg(charge) from t where charge > 100 group by workshop',
  ],
  [REPAIRS, 'how often each fault', 'select count(*) from t group by fault'],
  [
    REPAIRS,
    'charge in bands 50, 100, 200',
    'select count(*) from t group by (charge >= 50) + (charge >= 100) + (charge >= 200)',
  ],
  [REPAIRS, 'charge in bands of 50', 'select count(*) from t group by cast(charge / 50 as int)'],
  [REPAIRS, 'what is the total charge', 'select sum(charge) from t'],
  [
    REPAIRS,
    'charge by workshop where fault is brakes or charge over 300',
    "select sum(charge) from t where fault = 'brakes' or charge > 300 group by workshop",
  ],
  [ORDERS, 'kilos of buns by shop', "select sum(kilos) from t where item = 'Bun' group by shop"],
  [ORDERS, 'avrage price by shpo', 'select avg(price) from t group by shop'],
  [
    ORDERS,
    'kilos by shop, "tart, plum" only',
    "select sum(kilos) from t where item = 'Tart, plum' group by shop",
  ],
  [SHOPS, 'how many shops by item', 'select count(distinct shop) from t group by item'],
  [SHOPS, 'kilos by shop', 'select sum(kilos) from t group by shop'],
  [ORDERS, 'kilos by shop on mondays', 'select sum(kilos) from t group by shop'],
];

describe('a wish comes to the figures of SQL', () => {
  it.each([
    ['repairs', REPAIRS, REPAIR_WISHES],
    ['orders', ORDERS, ORDER_WISHES],
    ['a list whose columns are words of wishes', STOCK, STOCK_WISHES],
  ] as const)('%s, every one with every other', (_, list, wishes) => {
    const wrong: string[] = [];
    for (const [typed, sql] of wishes) {
      const [offer] = list.offers(typed);
      const [got, want] = [offer ? rising(figuresOf(list, offer)) : [], rising(list.sql(sql))];
      const same = got.length === want.length && got.every((v, k) => Math.abs(v - want[k]) < 1e-6);
      if (!same || offer.left.length > 0)
        wrong.push(
          `${typed}: ${offer?.sentence} ${offer?.narrowWords.join(' & ')} left ${offer?.left.join('|')} got ${got.length} want ${want.length}`,
        );
    }
    expect(wrong).toEqual([]);
    expect(wishes.length).toBeGreaterThan(20);
  });

  it.each(OTHER_WISHES.map(([list, typed, sql]) => [typed, list, sql] as const))(
    '%s',
    (typed, list, sql) => {
      const [offer] = list.offers(typed);
      expect([typed, offer.left]).toEqual([typed, []]);
      const [got, want] = [rising(figuresOf(list, offer)), rising(list.sql(sql))];
      expect([typed, got.length]).toEqual([typed, want.length]);
      got.forEach((v, k) => expect(v).toBeCloseTo(want[k], 6));
    },
  );
});
