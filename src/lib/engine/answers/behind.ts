import { checkKnownTotal } from '../../core/check/knownTotal';
import { fromSlice } from '../../core/measure/fromSlices';
import { measureWords, type Measure } from '../../core/measure/measure';
import { reckonMoments } from '../../core/measure/moments';
import { gather } from '../../core/measure/slices';
import { valuesOf } from '../../core/measure/valuesOf';
import { findTotals } from '../../core/read/totals';
import { describeCondition } from '../../core/scope/describe';
import { isMissing, isNumeric, isText, isUnread, type Column } from '../../core/table/column';
import { showScalar } from '../../core/table/cell';
import { counted, showCount } from '../../core/table/format';
import { columnOf } from '../../core/table/table';
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
  const blanks = column
    ? at.records.reduce((n, i) => n + (isMissing(column, i) && !isUnread(column, i) ? 1 : 0), 0)
    : 0;
  const unread = column ? at.records.reduce((n, i) => n + (isUnread(column, i) ? 1 : 0), 0) : 0;
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
    arithmetic: arithmeticWords(r, measure, column, at, values),
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

/** `Sum 149.8 ÷ 7`: how the figure follows from the records, in words. */
function arithmeticWords(
  r: Reckoned,
  measure: Measure,
  column: Column | null,
  at: FigureAt,
  values: number,
): string {
  if (!column)
    return measure.kind === 'records'
      ? 'Each record counts as 1.'
      : `${showCount(at.records.length)} records ÷ the records of ${measure.kind === 'recordsOfTotal' ? 'the grand total' : 'the group above'}.`;
  if (
    values === 0 &&
    !['records', 'values', 'blanks', 'unread', 'sum', 'distinct'].includes(measure.kind)
  )
    return 'No record has a value, so there is no figure.';
  const view = valuesOf(column);
  const moments = reckonMoments(view.values, new Int32Array(r.table.length), 1, at.records, true);
  const show = (v: number): string =>
    isText(column) ? '' : figureText({ kind: 'sum', column: column.id }, column, v, r.doc.formats);
  const sum = show(moments.sum(0));
  const n = showCount(values);
  switch (measure.kind) {
    case 'sum':
    case 'running':
      return `${n} values added up.`;
    case 'mean':
      return isNumeric(column) ? `Sum ${sum} ÷ ${n}.` : `Mean of ${n} values.`;
    case 'min':
    case 'max': {
      const value = measure.kind === 'min' ? moments.min(0) : moments.max(0);
      const ties = at.records.filter((i) => view.values[i] === value);
      return `${measure.kind === 'min' ? 'Lowest' : 'Highest'} of ${n} values, in record ${showCount(ties[0] + 1)}${ties.length > 1 ? ` and ${counted(ties.length - 1, 'other')}` : ''}.`;
    }
    case 'range':
      return `Highest ${show(moments.max(0))} − lowest ${show(moments.min(0))}.`;
    case 'median':
      return values % 2
        ? `The middle one of ${n} ordered values.`
        : `Halfway between the two middle ones of ${n} ordered values.`;
    case 'percentile':
    case 'lowerQuartile':
    case 'upperQuartile':
    case 'iqr':
      return `Linear between ${n} ordered values, p at place 1 + (n − 1)p (definition 7).`;
    case 'sd':
      return `Square root of the sum of squared deviations ÷ (${n} − 1).`;
    case 'sdPopulation':
      return `Square root of the sum of squared deviations ÷ ${n}.`;
    case 'variance':
      return `Sum of squared deviations ÷ (${n} − 1).`;
    case 'variancePopulation':
      return `Sum of squared deviations ÷ ${n}.`;
    case 'standardError':
      return `Standard deviation ÷ √${n}.`;
    case 'cv':
      return `Standard deviation ÷ mean ${show(moments.mean(0))}.`;
    case 'shareOfTotal':
      return `Sum ${sum} ÷ grand total ${show(r.foot.counted.figures.length ? grandSum(r, column) : NaN)}.`;
    case 'recordsOfTotal':
    case 'recordsOfParent':
      return 'Records here ÷ records there.';
    case 'shareOfParent':
      return `Sum ${sum} ÷ the sum of the group above.`;
    case 'distinct':
      return `Different values among ${n}.`;
    case 'mode':
      return modeWords(view.values, at.records);
    case 'first':
    case 'last':
      return `The ${measure.kind} value that is there, in the order of the ledger.`;
    case 'values':
      return 'Records that have a value.';
    case 'blanks':
      return 'Records without a value.';
    case 'unread':
      return 'Records whose text cannot be read.';
    case 'trimmedMean':
      return `Mean of ${n} values, less ${showCount(Math.floor((measure.p ?? 0.05) * values))} at each end.`;
    case 'geometricMean':
      return `${n}th root of the product of ${n} values; all must be over 0.`;
    case 'product':
      return `${n} values multiplied.`;
    case 'meanDeviation':
      return `Mean distance of ${n} values from their mean ${show(moments.mean(0))}.`;
    case 'medianDeviation':
      return `Mean distance of ${n} values from their median.`;
    case 'skewness':
    case 'kurtosis':
      return `Adjusted sample form over ${n} values.`;
    case 'skewnessPopulation':
    case 'kurtosisPopulation':
      return `Population form over ${n} values.`;
    case 'records':
      return 'Each record counts as 1.';
    case 'weightedMean':
      return 'Sum of the values times their weights ÷ the sum of the weights.';
    case 'atMin':
    case 'atMax':
      return `The value in the first record that holds the ${measure.kind === 'atMin' ? 'lowest' : 'highest'} of ${n}.`;
    case 'minTies':
    case 'maxTies':
    case 'modeTies':
      return `Counted among ${n} values.`;
  }
}

function grandSum(r: Reckoned, column: Column): number {
  const all = r.order.filter((i) => ((r.ladder.counted[i >>> 5] >>> (i & 31)) & 1) === 1);
  return reckonMoments(valuesOf(column).values, new Int32Array(r.table.length), 1, all, false).sum(
    0,
  );
}

function modeWords(values: Float64Array, records: Int32Array): string {
  const times = new Map<number, number>();
  for (const i of records)
    if (values[i] === values[i]) times.set(values[i], (times.get(values[i]) ?? 0) + 1);
  const most = Math.max(...times.values());
  const ties = [...times.values()].filter((n) => n === most).length;
  return `Stands ${counted(most, 'time')}${ties > 1 ? `; ${counted(ties - 1, 'other value')} as often, and the smallest is named` : ''}.`;
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
