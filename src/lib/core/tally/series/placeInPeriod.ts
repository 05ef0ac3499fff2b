import { civil, DAY_MS } from '../../table/calendar';
import type { ScalarColumn } from '../../table/column';
import {
  periodEnd,
  periodOf,
  periodStart,
  type Calendar,
  type CalendarPeriod,
} from '../../table/period';

/** From the longest to the shortest: yearly dates stand at the start of their months as well. */
const LONGEST_FIRST: readonly CalendarPeriod[] = ['year', 'half', 'quarter', 'month', 'week'];

/** One date could stand at the edge of anything. */
const LEAST = 2;

const known = new WeakMap<Float64Array, Map<string, CalendarPeriod>>();

/**
 * The period that each date of a column stands for: where all stand on the first day of their
 * months, or all on the last, or all on the same day of it, each is the month's (calculations, section 9).
 * Days, where they stand here and there.
 */
export function standsFor(column: ScalarColumn, calendar: Calendar): CalendarPeriod {
  if (column.type === 'date' && column.grain !== 'day') return column.grain;
  const key = JSON.stringify([column.type, calendar]);
  let byCalendar = known.get(column.values);
  if (!byCalendar) known.set(column.values, (byCalendar = new Map()));
  let found = byCalendar.get(key);
  if (!found) byCalendar.set(key, (found = longest(column, calendar)));
  return found;
}

function longest({ values, type }: ScalarColumn, calendar: Calendar): CalendarPeriod {
  const perDay = type === 'datetime' ? DAY_MS : 1;
  const days = new Set<number>();
  const edges = LONGEST_FIRST.flatMap((period) => [
    { period, edge: periodStart },
    { period, edge: periodEnd },
  ]);
  let possible = edges;
  // The 15th of each month stands for its month as the first or the last does.
  let dayOfMonth: number | null = null;
  for (const v of values) {
    if (v !== v) continue;
    const day = Math.floor(v / perDay);
    if (days.has(day)) continue;
    days.add(day);
    possible = possible.filter(
      ({ period, edge }) => edge(periodOf(day, period, calendar), period, calendar) === day,
    );
    const { day: own } = civil(day);
    dayOfMonth = dayOfMonth === null || dayOfMonth === own ? own : 0;
    // Most lists are dated by the day: the first few dates tell.
    if (possible.length === 0 && dayOfMonth === 0) return 'day';
  }
  if (days.size < LEAST) return 'day';
  return possible.length ? possible[0].period : 'month';
}
