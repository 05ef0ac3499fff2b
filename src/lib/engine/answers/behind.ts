import { directTotal } from '../../core/check/footing';
import { checkKnownTotal } from '../../core/check/knownTotal';
import { fromSlice } from '../../core/measure/fromSlices';
import { measureWords, type Measure } from '../../core/measure/measure';
import { gather } from '../../core/measure/slices';
import { valuesOf } from '../../core/measure/valuesOf';
import { findTotals } from '../../core/read/totals';
import { describeCondition } from '../../core/scope/describe';
import { isNumeric, isText, type Column } from '../../core/table/column';
import { showScalar } from '../../core/table/cell';
import { counted } from '../../core/table/format';
import { columnOf } from '../../core/table/table';
import { arithmeticWords, skipped } from '../../core/tally/arithmetic';
import { figureText } from '../../core/tally/ledger/figureText';
import type { Behind, LineCell, Place, ReplyOf } from '../protocol';
import type { Reckoned } from '../reckoning';
import { cellOf, correctedCells, measureColumn } from './lines';
import { figureAt, type FigureAt } from './place';

/** A mean or a share on fewer records than this is warned about. */
const FEW = 10;

/** The records, the blanks and the arithmetic behind a figure. */
export function answerBehind(r: Reckoned, place: Place): Behind {
  const at = figureAt(r, place);
  const measure = r.spec.measures[place.measure];
  const column = measureColumn(r, measure);
  const { blanks, unread } = column ? skipped(column, at.records) : { blanks: 0, unread: 0 };
  const values = at.records.length - blanks - unread;
  return {
    figure: figureText(measure, column, at.value, r.doc.formats),
    unit: column && !isText(column) ? column.unit : '',
    says: column ? `${measureWords(measure)} of ${column.name}` : measureWords(measure),
    where: whereWords(place, at),
    records: at.records.length,
    values,
    blanks,
    unread,
    arithmetic: arithmeticWords({
      measure,
      column,
      records: at.records,
      values,
      show: (v) =>
        column && !isText(column)
          ? figureText({ kind: 'sum', column: column.id }, column, v, r.doc.formats)
          : '',
      whole: () => (column ? grandSum(r, column) : NaN),
    }),
    warning: fewWarning(r, measure, column, at, values),
    columns: listedColumns(r, column).map((c) => ({ name: c.name, right: c.type === 'number' })),
    canCheck: column !== null && isNumeric(column) && measure.kind === 'sum',
  };
}

const FOOT_WORDS = {
  all: 'All records',
  narrowed: 'After narrowing, before setting aside',
  counted: 'All counted records',
};

const whereWords = (place: Place, at: FigureAt): string =>
  place.at === 'foot' ? FOOT_WORDS[place.line] : at.path.join(' › ');

function grandSum(r: Reckoned, column: Column): number {
  const all = r.order.filter((i) => ((r.ladder.counted[i >>> 5] >>> (i & 31)) & 1) === 1);
  return directTotal(valuesOf(column).values, all).total;
}

/** Where few records carry a figure: the one that moves it most, and the median beside a mean. */
function fewWarning(
  r: Reckoned,
  measure: Measure,
  column: Column | null,
  at: FigureAt,
  values: number,
): string {
  if (!column || values === 0 || values >= FEW || !isNumeric(column)) return '';
  if (['sum', 'values', 'blanks', 'unread', 'records', 'running'].includes(measure.kind)) return '';
  const start = `Only ${counted(values, 'value')}`;
  if (measure.kind !== 'mean' || values < 2) return `${start}: this figure rests on very little.`;
  const there = at.records.filter((i) => column.values[i] === column.values[i]);
  const sum = there.reduce((s, i) => s + column.values[i], 0);
  const mean = sum / values;
  let far = there[0];
  for (const i of there)
    if (Math.abs(column.values[i] - mean) > Math.abs(column.values[far] - mean)) far = i;
  const move = mean - (sum - column.values[far]) / (values - 1);
  const slice = gather(column.values, new Int32Array(r.table.length), 1, at.records);
  const median = fromSlice({ kind: 'median' }, slice.values, 0, slice.values.length);
  const show = (v: number): string => figureText(measure, column, v, r.doc.formats);
  return `${start}: one of ${showScalar(column, column.values[far], r.doc.formats[column.id])} moves this mean by ${show(move)}. The median is ${show(median)}.`;
}

/** Up to two columns that name a record, then the figure's own. */
function listedColumns(r: Reckoned, column: Column | null): Column[] {
  const naming = [r.columns.naming, ...r.table.columns.map((c) => c.id)].filter(
    (id): id is string => id !== null && id !== column?.id,
  );
  const groups = new Set(r.spec.groups.map((g) => g.column));
  const ids = [...new Set(naming)].filter((id) => !groups.has(id)).slice(0, 2);
  return [...ids.map((id) => columnOf(r.table, id)), ...(column ? [column] : [])];
}

/** A stretch of the records behind a figure, in the order of the ledger. */
export function answerBehindRecords(
  r: Reckoned,
  place: Place,
  from: number,
  count: number,
): { record: number; cells: LineCell[] }[] {
  const at = figureAt(r, place);
  const columns = listedColumns(r, measureColumn(r, r.spec.measures[place.measure]));
  const corrected = correctedCells(r);
  return Array.from(at.records.subarray(from, from + count), (record) => ({
    record,
    cells: columns.map((column) => cellOf(r, column, record, corrected)),
  }));
}

/** The difference from a known total and what would explain it. */
export function answerCheck(r: Reckoned, place: Place, known: number): ReplyOf<'check'> {
  const at = figureAt(r, place);
  const column = measureColumn(r, r.spec.measures[place.measure]);
  if (!column || isText(column)) return { difference: '', explanations: [] };
  const { difference, explanations } = checkKnownTotal(known, {
    column,
    figure: at.value,
    records: at.records,
    group: at.group,
    ladder: r.ladder,
    rungNames: r.doc.ladder.rungs.map((rung) => describeCondition(rung.condition, r.names)),
    totals: findTotals(r.table).map((t) => t.record),
  });
  return {
    difference: showScalar(column, difference, r.doc.formats[column.id]),
    explanations: explanations.map(({ says, records }) => ({ says, records: [...records] })),
  };
}
