import { periodEnd, periodOf, periodStart } from '../table/period';
import type { NamedDays } from '../table/periodName';
import { PERIOD_WORDS } from './words/periodWords';

/**
 * Days that are told from the last day of a list: `this month` is the month of that day, `last quarter` the quarter
 * before, `last 3 months` the three that end with it. Null for other words.
 * @param last the last day that the list has
 * @example relativeSpan(['last', 'year'], dayNumber(2026, 11, 26)) // the days of 2025
 */
export function relativeSpan(words: readonly string[], last: number): NamedDays | null {
  const [which, count, unit] = words.length === 2 ? [words[0], '1', words[1]] : words;
  const period = words.length > 3 ? undefined : PERIOD_WORDS.get(unit ?? '');
  if (!period || period === 'weekday' || !/^(this|last|previous|past)$/.test(which ?? ''))
    return null;
  const n = Number(count);
  if (!Number.isInteger(n) || n < 1 || n > 1000) return null;
  const now = periodOf(last, period);
  if (words.length === 3)
    return which === 'this'
      ? null
      : { from: periodStart(now - n + 1, period), to: periodEnd(now, period) };
  const of = which === 'this' ? now : now - 1;
  return { from: periodStart(of, period), to: periodEnd(of, period) };
}
