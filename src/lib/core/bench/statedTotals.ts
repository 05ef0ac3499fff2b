import type { KnownTotal } from '../check/known';
import type { Measure } from '../measure/measure';
import { findTotals } from '../read/totals';
import { recordNumber } from '../table/recordNumber';
import { isText } from '../table/column';
import { showCount } from '../table/format';
import { findColumn, type Table } from '../table/table';
import { finish } from '../task/task';

/**
 * What a file states as its grand total, as known totals of the sums at the foot of its first bench: what was set
 * aside there is compared from then on. None where no record that was set aside is a total of all others.
 * @param setAside numbers of the records that were set aside
 * @param measures those of the ledger
 */
export function statedTotals(
  table: Table,
  setAside: readonly number[],
  measures: readonly Measure[],
): KnownTotal[] {
  const aside = new Set(setAside);
  const grand = finish(findTotals(table)).findLast(({ record, why }) => {
    if (!aside.has(recordNumber(record))) return false;
    const from = why.kind === 'sum' ? why.from : why.sum?.from;
    return from === 0 && record === table.length - 1;
  });
  if (!grand) return [];
  const { record } = grand;
  return measures.flatMap((measure, k): KnownTotal[] => {
    const column = measure.column === undefined ? null : findColumn(table.columns, measure.column);
    if (measure.kind !== 'sum' || !column || isText(column)) return [];
    const value = column.values[record];
    if (value !== value) return [];
    return [
      {
        id: `stated${k + 1}`,
        tally: 'ledger',
        place: { table: 'main', row: [], column: `m${k + 1}` },
        value,
        decimals: column.decimals,
        source: `the total in the file, record ${showCount(recordNumber(record))}`,
        note: '',
      },
    ];
  });
}
