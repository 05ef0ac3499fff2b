import { marked, type FigureRow } from '../result';
import {
  periodRow,
  totalCells,
  totalMarks,
  undatedWhere,
  walkPeriods,
  type PeriodRows,
} from './rows';

/** The total, its periods level by level, and the records without a date. */
export function wholeRows(made: PeriodRows): FigureRow[] {
  const { spec, computed } = made;
  const { whole } = computed;
  const rows: FigureRow[] = [
    {
      kind: 'total',
      level: 0,
      keys: [],
      cells: ['All periods', null, null, ...totalCells(made, whole.records, whole.totals)],
      ...marked(totalMarks(made, whole)),
    },
  ];
  walkPeriods(
    whole,
    computed,
    (level, depth, k, parent) =>
      rows.push({
        kind: depth === spec.levels.length - 1 ? 'group' : 'total',
        level: depth + 1,
        ...periodRow(made, level, k),
        partOf: parent,
      }) - 1,
    0,
  );
  const { undated } = whole;
  if (undated.records > 0)
    rows.push({
      kind: 'outside',
      level: 1,
      keys: [null, null, null],
      cells: ['no date', null, null, ...totalCells(made, undated.records, undated.values)],
      where: undatedWhere(spec.column),
      partOf: 0,
    });
  return rows;
}
