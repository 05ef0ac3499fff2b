import { DAY_MS } from '../table/calendar';
import { counted, listed, showCount } from '../table/format';
import { isText, type ScalarColumn } from '../table/column';
import { periodLabel, periodOf } from '../table/period';
import type { Table } from '../table/table';
import { inStretches, type Task } from '../task/task';

/** A month of which a new file has fewer records than the list. */
export interface LostMonth {
  readonly month: string;
  readonly before: number;
  readonly now: number;
}

/** The months that lose records, by a column of dates that both have. */
export interface LostMonths {
  readonly column: string;
  readonly months: readonly LostMonth[];
}

/** So many months are named. */
const NAMED = 4;

/**
 * The months of which a new file has fewer records than the list that it would take the place of, by their
 * first column of days; null where they have none in common.
 */
export function* lostMonths(list: Table, file: Table): Task<LostMonths | null> {
  for (const column of list.columns) {
    const other = file.columns.find((c) => c.id === column.id);
    if (!other || !isDated(column) || !isDated(other)) continue;
    const before = yield* byMonth(column);
    const now = yield* byMonth(other);
    const months = [...before]
      .map(([month, n]) => ({ month, before: n, now: now.get(month) ?? 0 }))
      .filter((m) => m.now < m.before)
      .sort((a, b) => a.month - b.month)
      .map((m) => ({ ...m, month: periodLabel(m.month, 'month') }));
    return { column: column.name, months };
  }
  return null;
}

const isDated = (column: Table['columns'][number]): column is ScalarColumn =>
  !isText(column) &&
  (column.type === 'datetime' ||
    (column.type === 'date' && (column.grain === 'day' || column.grain === 'month')));

/** Records by the number of their month. */
function* byMonth({ type, values }: ScalarColumn): Task<Map<number, number>> {
  const counts = new Map<number, number>();
  yield* inStretches(values.length, (begin, end) => {
    for (let i = begin; i < end; i++) {
      const value = values[i];
      if (value !== value) continue;
      const days = type === 'date' ? value : Math.floor(value / DAY_MS);
      const month = periodOf(days, 'month');
      counts.set(month, (counts.get(month) ?? 0) + 1);
    }
  });
  return counts;
}

/** `Sailed on has fewer in Jan 2024 (0 of 412), Feb 2024 (3 of 398) and 2 more months`; '' where no month loses any. */
export function lostMonthsWords({ column, months }: LostMonths): string {
  if (months.length === 0) return '';
  const named = months
    .slice(0, NAMED)
    .map(({ month, before, now }) => `${month} (${showCount(now)} of ${showCount(before)})`);
  const more = months.length - NAMED;
  return `By ${column} fewer in ${listed(more > 0 ? [...named, counted(more, 'more month')] : named)}`;
}
