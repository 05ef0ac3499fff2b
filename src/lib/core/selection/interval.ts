import { BadCondition } from '../errors';
import { DAY_MS, civil, weekday } from '../table/calendar';
import { sortedValues } from '../sorting/sorted';
import type { Task } from '../task/task';
import { members, type Bitset } from '../table/bitset';
import type { ScalarColumn } from '../table/column';
import { periodOf, periodStart } from '../table/period';
import type { Test } from './condition';
import { DATE_FORMS, daysCovered, spanOf } from './point';

/** Values from lo to hi, both in; or, when `outside`, the values before and behind them. */
export interface Interval {
  readonly lo: number;
  readonly hi: number;
  readonly outside: boolean;
}

const inside = (lo: number, hi: number): Interval => ({ lo, hi, outside: false });

const bits = new BigInt64Array(1);
const asFloat = new Float64Array(bits.buffer);

/** The next double above (IEEE 754 nextUp); infinities stay. */
export function nextUp(x: number): number {
  if (x === Infinity || Number.isNaN(x)) return x;
  if (x === 0) return Number.MIN_VALUE;
  asFloat[0] = x;
  bits[0] += x > 0 ? 1n : -1n;
  return asFloat[0];
}

export const nextDown = (x: number): number => -nextUp(-x);

/** The interval a test asks for, where it does not look at other records. */
export function fixedInterval(column: ScalarColumn, test: Test): Interval | null {
  if (test.test === 'compare') {
    const { from, to } = spanOf(column, test.value);
    switch (test.op) {
      case 'eq':
        return inside(from, to);
      case 'ne':
        return { lo: from, hi: to, outside: true };
      case 'lt':
        return inside(-Infinity, nextDown(from));
      case 'le':
        return inside(-Infinity, to);
      case 'gt':
        return inside(nextUp(to), Infinity);
      case 'ge':
        return inside(from, Infinity);
    }
  }
  if (test.test === 'between') {
    const first = spanOf(column, test.from);
    const last = spanOf(column, test.to);
    return inside(
      test.fromIn ? first.from : nextUp(first.to),
      test.toIn ? last.to : nextDown(last.from),
    );
  }
  if (test.test === 'last') return lastPeriods(column, test);
  return null;
}

/** From the start of the k-th last period to the latest date of the whole list. */
function lastPeriods(
  column: ScalarColumn,
  { k, period }: Extract<Test, { test: 'last' }>,
): Interval {
  let latest = -Infinity;
  for (const v of column.values) if (v > latest) latest = v;
  if (latest === -Infinity) return inside(1, 0);
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const last = periodOf(Math.floor(latest / perDay), period);
  return inside(periodStart(last - k + 1, period) * perDay, Infinity);
}

/** Which days pass a test on the calendar. */
export function dayTest(
  test: Extract<Test, { test: 'period' | 'season' }>,
): (day: number) => boolean {
  if (test.test === 'period') {
    const wanted = new Set(
      test.days.map((text) => {
        const day = daysCovered(text.trim())?.from;
        if (day === undefined)
          throw new BadCondition(
            `“${text}” is not a date that can be read one way only. Write ${DATE_FORMS}.`,
          );
        return periodOf(day, test.period);
      }),
    );
    return (day) => wanted.has(periodOf(day, test.period));
  }
  const wanted = new Set(test.values);
  switch (test.of) {
    case 'month':
      return (day) => wanted.has(civil(day).month);
    case 'quarter':
      return (day) => wanted.has(Math.floor((civil(day).month + 2) / 3));
    case 'weekday':
      return (day) => wanted.has(weekday(day) + 1);
  }
}

const quantile7 = (sorted: Float64Array, p: number): number => {
  const at = (sorted.length - 1) * p;
  const low = Math.floor(at);
  const next = Math.min(low + 1, sorted.length - 1);
  return sorted[low] + (at - low) * (sorted[next] - sorted[low]);
};

/**
 * The interval of a test that looks at what the rungs above kept. Ties at the edge of the highest
 * or lowest k stay in. Nothing passes where there is no value, or one only for a deviation.
 */
export function* relativeInterval(column: ScalarColumn, test: Test, above: Bitset): Task<Interval> {
  const sorted = yield* sortedValues(column.values, members(above));
  const n = sorted.length;
  if (n === 0) return inside(1, 0);
  const mean = sorted.reduce((a, b) => a + b, 0) / n;
  switch (test.test) {
    case 'extreme': {
      const k = Math.min(
        n,
        test.of === 'records' ? Math.floor(test.k) : Math.ceil((test.k / 100) * n),
      );
      if (k < 1) return inside(1, 0);
      return test.side === 'highest'
        ? inside(sorted[n - k], Infinity)
        : inside(-Infinity, sorted[k - 1]);
    }
    case 'mean':
      return test.side === 'above'
        ? inside(nextUp(mean), Infinity)
        : inside(-Infinity, nextDown(mean));
    case 'deviations': {
      if (n < 2) return inside(1, 0);
      const sd = Math.sqrt(sorted.reduce((a, b) => a + (b - mean) ** 2, 0) / (n - 1));
      return { lo: mean - test.k * sd, hi: mean + test.k * sd, outside: true };
    }
    case 'outlying': {
      const [q1, q3] = [quantile7(sorted, 0.25), quantile7(sorted, 0.75)];
      return { lo: q1 - test.k * (q3 - q1), hi: q3 + test.k * (q3 - q1), outside: true };
    }
    default:
      return inside(1, 0);
  }
}
