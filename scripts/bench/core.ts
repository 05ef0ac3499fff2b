import Sqlite from 'better-sqlite3';
import { median, rollup } from 'd3-array';
import Papa from 'papaparse';
import { groupCodes } from '$lib/core/arrange/groupCodes';
import { sortRecords } from '$lib/core/arrange/sort';
import { buildTree } from '$lib/core/arrange/tree';
import { quantiles } from '$lib/core/measure/quantile';
import { momentsOfGroups } from '$lib/core/measure/moments';
import { gather } from '$lib/core/measure/slices';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import { DelimitedReader, proposeRecipe } from '$lib/core/read/delimited';
import { evaluate } from '$lib/core/selection/evaluate';
import { finish } from '$lib/core/task/task';
import { and, fullBitset, members } from '$lib/core/table/bitset';
import type { ScalarColumn, TextColumn } from '$lib/core/table/column';
import { columnOf, type Table } from '$lib/core/table/table';
import { madeFile, madeTable } from './made';
import type { Meter } from './meter';

/** Grouping, percentiles, narrowing, sorting and reading, against bare loops and other programs. */
export function benchCore(table: Table, meter: Meter): void {
  // Functions of their own, so that what one made is gone when the next is measured.
  grouping(table, meter);
  percentiles(table, meter);
  narrowing(table, meter);
  sorting(table, meter);
  growth(table, meter);
  reading(meter);
}

const scalar = (table: Table, id: string): ScalarColumn => columnOf(table, id) as ScalarColumn;
const text = (table: Table, id: string): TextColumn => columnOf(table, id) as TextColumn;

/** Count, sum, mean, lowest, highest and standard deviation by two text keys. */
function groupWork(table: Table, records: Int32Array): unknown {
  const key = (id: string) =>
    finish(
      groupCodes(columnOf(table, id), {
        column: id,
        loose: false,
        order: { by: 'label', descending: false },
      }),
    );
  const tree = finish(buildTree(table.length, [key('route'), key('vessel')]));
  const m = finish(
    momentsOfGroups(scalar(table, 'fares').values, tree.leafOf, tree.leaves, records, true),
  );
  return Array.from({ length: tree.leaves }, (_, g) => [
    m.count(g),
    m.sum(g),
    m.mean(g),
    m.min(g),
    m.max(g),
    Math.sqrt(m.squares(g) / (m.count(g) - 1)),
  ]);
}

function bareLoop(values: Float64Array, keys: Int32Array, groups: number): Float64Array {
  const sums = new Float64Array(groups);
  for (let i = 0; i < values.length; i++) sums[keys[i]] += values[i];
  return sums;
}

/** Groups of two keys, against a bare loop and SQLite. */
function grouping(table: Table, { ratio, atMost, atLeast }: Meter): void {
  const N = table.length;
  const records = members(fullBitset(N));
  const fares = scalar(table, 'fares').values;
  const ready = Int32Array.from(
    { length: N },
    (_, i) => text(table, 'route').codes[i] * 30 + text(table, 'vessel').codes[i],
  );
  const ours = (): unknown => groupWork(table, records);
  atMost(
    'group by two text keys with six measures',
    ratio(ours, () => bareLoop(fares, ready, 360), 25),
    10,
    'a bare loop that sums by a ready key',
  );

  const db = new Sqlite(':memory:');
  db.exec('create table t (route text, vessel text, fares real)');
  const insert = db.prepare('insert into t values (?, ?, ?)');
  const [r, v] = [text(table, 'route'), text(table, 'vessel')];
  db.transaction(() => {
    for (let i = 0; i < N; i++)
      insert.run(r.dictionary[r.codes[i]], v.dictionary[v.codes[i]], fares[i]);
  })();
  const sql = db.prepare(
    'select route, vessel, count(*), sum(fares), avg(fares) from t group by route, vessel',
  );
  atLeast(
    'the same',
    ratio(() => sql.all(), ours),
    60,
    "SQLite's GROUP BY with count, sum, avg",
  );
  db.close();
}

/** Medians and percentiles of groups. */
function percentiles(table: Table, { ratio, atLeast }: Meter): void {
  const records = members(fullBitset(table.length));
  const route = text(table, 'route');
  const delay = scalar(table, 'fuel').values;
  const ours = (): unknown => {
    const slices = finish(gather(delay, route.codes, 12, records));
    return Array.from({ length: 12 }, (_, g) =>
      quantiles(
        slices.values,
        slices.start[g],
        slices.start[g + 1],
        [0.05, 0.25, 0.5, 0.75, 0.9, 0.95],
      ),
    );
  };
  const index = Array.from(records);
  const theirs = (): unknown =>
    rollup(
      index,
      (group) => median(group, (i) => delay[i]),
      (i) => route.codes[i],
    );
  atLeast(
    'exact median and 5 percentiles for each of 12 groups',
    ratio(theirs, ours, 5),
    4,
    'd3.rollup with d3.median alone',
  );
}

/** One more step of What counts. */
function narrowing(table: Table, { ratio, atMost }: Meter): void {
  const values = scalar(table, 'delay').values;
  const above = fullBitset(table.length);
  const narrowing = ratio(
    () =>
      and(
        above,
        finish(
          evaluate(
            table,
            {
              kind: 'leaf',
              column: 'delay',
              not: false,
              test: { test: 'compare', op: 'ge', value: 10 },
            },
            above,
          ),
        ).yes,
      ),
    () => {
      let sum = 0;
      for (let i = 0; i < values.length; i++) sum += values[i];
      return sum;
    },
    31,
  );
  atMost('one more narrowing step to a new selection', narrowing, 3, 'a bare loop over the column');
}

/** Records by two columns. */
function sorting(table: Table, { ratio, atLeast }: Meter): void {
  const fares = scalar(table, 'fares').values;
  const ours = (): unknown =>
    finish(
      sortRecords(table, [
        { column: 'route', descending: false, blanks: 'last' },
        { column: 'fares', descending: true, blanks: 'last' },
      ]),
    );
  const route = text(table, 'route');
  const objects = Array.from({ length: table.length }, (_, i) => ({
    route: route.dictionary[route.codes[i]],
    fares: fares[i],
  }));
  const theirs = (): unknown =>
    objects
      .slice()
      .sort((a, b) => (a.route < b.route ? -1 : a.route > b.route ? 1 : b.fares - a.fares));
  atLeast(
    'sort 1,000,000 records by two columns',
    ratio(theirs, ours, 5),
    3,
    'Array.prototype.sort on objects',
  );
}

/** Four times the records. */
function growth(table: Table, { ratio, atMost }: Meter): void {
  const four = madeTable(4 * table.length);
  const [records, all] = [table, four].map(({ length }) => members(fullBitset(length)));
  atMost(
    'growth of that grouping from 1 to 4 million records',
    ratio(
      () => groupWork(four, all),
      () => groupWork(table, records),
      15,
    ),
    4.6,
    'the time of 1 million',
  );
}

/** A file into typed columns. */
function reading({ ratio, atMost }: Meter): void {
  const bytes = madeFile(70 * 1024 * 1024);
  const slice = 1 << 22;
  const recipe = proposeRecipe(bytes.subarray(0, HEAD_BYTES), false);
  const ours = (): number => {
    const reader = new DelimitedReader(recipe);
    for (let at = 0; at < bytes.length; at += slice)
      reader.push(bytes.subarray(at, at + slice), at + slice >= bytes.length);
    return reader.finish().table.length;
  };
  const theirs = (): number => {
    const whole = new TextDecoder().decode(bytes);
    let n = 0;
    Papa.parse<string[]>(whole, {
      chunkSize: slice,
      chunk: ({ data }: Papa.ParseResult<string[]>) => void (n += data.length),
      complete: () => {},
    });
    return n;
  };
  atMost(
    'read a 70 MB delimited file into typed columns',
    ratio(ours, theirs, 3),
    1.8,
    "Papa Parse's own chunked parse of it",
  );
}
