import { MEASURES, type Measure } from '../../measure/measure';
import { momentsOf, type Moments } from '../../measure/moments';
import { runsInParts } from '../../measure/runs';
import { sortedValues } from '../../sorting/sorted';
import { inStretches, type Task } from '../../task/task';
import { valuesOf } from '../../measure/valuesOf';
import { isNumeric, isText, isUnread, type Column } from '../../table/column';
import { counted, showCount } from '../../table/format';

/** What a figure of a measure rests on. */
export interface ComputedFrom {
  readonly measure: Measure;
  /** Null where records are counted. */
  readonly column: Column | null;
  readonly records: Int32Array;
  /** The measure's second column; null where it has none. */
  readonly other: Column | null;
  /** Of those, how many have a value. */
  readonly values: number;
  /** A value of the column as the page shows it. */
  show(value: number): string;
  /** Sum of the column over the whole, where a share of it is asked. */
  whole(): Task<number>;
}

/** How many of the records have no value in a column: blank, and unread. */
export function* skipped(
  column: Column,
  records: Int32Array,
): Task<{ blanks: number; unread: number }> {
  let missing = 0;
  let unread = 0;
  const { length } = records;
  if (isText(column)) {
    const { codes } = column;
    yield* inStretches(length, (from, to) => {
      for (let k = from; k < to; k++) if (codes[records[k]] < 0) missing++;
    });
    return { blanks: missing, unread };
  }
  const { values } = column;
  yield* inStretches(length, (from, to) => {
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v === v) continue;
      missing++;
      if (isUnread(column, records[k])) unread++;
    }
  });
  return { blanks: missing - unread, unread };
}

/** Measures that have a figure even without a single value. */
const OF_NOTHING = [
  'records',
  'values',
  'blanks',
  'unread',
  'sum',
  'distinct',
  'modeTies',
  'minTies',
  'maxTies',
];

/** `Sum 149.8 ÷ 7`: how a figure follows from its records, in words. */
export function* arithmeticWords(from: ComputedFrom): Task<string> {
  const { measure, column, records, values } = from;
  if (!column)
    return measure.kind === 'records'
      ? 'Each record counts as 1.'
      : `${showCount(records.length)} records ÷ the records of ${measure.kind === 'recordsOfTotal' ? 'the grand total' : 'the group above'}.`;
  if (values === 0 && !OF_NOTHING.includes(measure.kind))
    return 'No record has a value, so there is no figure.';
  const words = yield* withValues(from, column);
  if (measure.definition !== undefined && measure.definition !== 7)
    return `Sample quantile by definition ${measure.definition} over ${showCount(values)} ordered values.`;
  return words;
}

function* withValues(
  { measure, records, values, other, show, whole }: ComputedFrom,
  column: Column,
): Task<string> {
  const view = yield* valuesOf(column);
  let known: Moments | null = null;
  const moments = function* (): Task<Moments> {
    return (known ??= yield* momentsOf(view.values, records, false));
  };
  const sum = function* (): Task<string> {
    return show((yield* moments()).sum(0));
  };
  const n = showCount(values);
  switch (measure.kind) {
    case 'sum':
    case 'running':
      return `${n} values added up.`;
    case 'mean':
      return isNumeric(column) ? `Sum ${yield* sum()} ÷ ${n}.` : `Mean of ${n} values.`;
    case 'min':
    case 'max': {
      const value = measure.kind === 'min' ? (yield* moments()).min(0) : (yield* moments()).max(0);
      const { first, ties } = yield* holding(view.values, records, value);
      return `${measure.kind === 'min' ? 'Lowest' : 'Highest'} of ${n} values, in record ${showCount(first + 1)}${ties > 1 ? ` and ${counted(ties - 1, 'other')}` : ''}.`;
    }
    case 'range':
      return `Highest ${show((yield* moments()).max(0))} − lowest ${show((yield* moments()).min(0))}.`;
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
      return `Standard deviation ÷ mean ${show((yield* moments()).mean(0))}.`;
    case 'shareOfTotal':
      return `Sum ${yield* sum()} ÷ grand total ${show(yield* whole())}.`;
    case 'recordsOfTotal':
    case 'recordsOfParent':
      return 'Records here ÷ records there.';
    case 'shareOfParent':
      return `Sum ${yield* sum()} ÷ the sum of the group above.`;
    case 'distinct':
      return `Different values among ${n}.`;
    case 'mode':
      return yield* modeWords(view.values, records);
    case 'first':
    case 'last':
      return `The ${measure.kind} value that is there, in the current order.`;
    case 'trimmedMean':
      return `Mean of ${n} values, less ${showCount(Math.floor(((measure.percent ?? 5) / 100) * values))} at each end.`;
    case 'geometricMean':
      return `${n}th root of the product of ${n} values; all must be over 0.`;
    case 'product':
      return `${n} values multiplied.`;
    case 'meanDeviation':
      return `Mean distance of ${n} values from their mean ${show((yield* moments()).mean(0))}.`;
    case 'medianDeviation':
      return `Mean distance of ${n} values from their median.`;
    case 'skewness':
    case 'kurtosis':
      return `Adjusted sample form over ${n} values.`;
    case 'skewnessPopulation':
    case 'kurtosisPopulation':
      return `Population form over ${n} values.`;
    case 'ratio':
    case 'difference': {
      const second = other
        ? yield* momentsOf((yield* valuesOf(other)).values, records, false)
        : null;
      return `Sum ${yield* sum()} ${measure.kind === 'ratio' ? '÷' : '−'} sum ${second ? show(second.sum(0)) : 'of nothing'}.`;
    }
    case 'weightedMean':
      return 'Each value times its weight, added up, ÷ the sum of the weights; records lacking either are skipped.';
    case 'atMin':
    case 'atMax':
      return `The value in the first record that holds the ${measure.kind === 'atMin' ? 'lowest' : 'highest'} of ${n}.`;
    case 'minTies':
    case 'maxTies':
      return `Records that hold the ${measure.kind === 'minTies' ? 'lowest' : 'highest'} of ${n} values.`;
    case 'modeTies':
      return `Values that are as common as the commonest of ${n}.`;
    default:
      return `${MEASURES[measure.kind].words}: records counted one by one.`;
  }
}

/** The first of some records that holds a value, and how many do. */
function* holding(
  values: Float64Array,
  records: Int32Array,
  value: number,
): Task<{ first: number; ties: number }> {
  let first = -1;
  let ties = 0;
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++)
      if (values[records[k]] === value) {
        if (ties === 0) first = records[k];
        ties++;
      }
  });
  return { first, ties };
}

function* modeWords(values: Float64Array, records: Int32Array): Task<string> {
  const { times: most, ties } = yield* runsInParts(yield* sortedValues(values, records));
  return `Stands ${counted(most, 'time')}${ties > 1 ? `; ${counted(ties - 1, 'other value')} stand${ties > 2 ? '' : 's'} as often, the first in order is shown` : ''}.`;
}
