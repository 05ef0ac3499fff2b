import { columnFor } from '../../expression/columnFor';
import { computeWithMoments } from '../../measure/compute';
import type { Grouping } from '../../measure/grouping';
import type { Leafed } from '../../measure/leafed';
import type { Measure } from '../../measure/measure';
import type { Moments } from '../../measure/moments';
import type { Task } from '../../task/task';
import { showScalar } from '../../table/cell';
import { isNumeric, type ScalarColumn } from '../../table/column';
import { showCount } from '../../table/format';
import { recordNumber } from '../../table/recordNumber';
import type { Table } from '../../table/table';
import { figureText, formatOf } from '../answer/figureText';
import type { Formats } from '../spec/formats';
import { figureOf, type Deviation, type FigureColumn, type Mark } from '../answer/result';

/**
 * What a figure rests on (calculations, section 14): the record whose leaving out changes a sum or
 * a mean most. For a sum that is the largest |x|, for a mean the largest |x − mean| ÷ (n − 1).
 */
export interface Influence {
  /** The place of the record, from 0. */
  readonly record: number;
  /** Its value. */
  readonly value: number;
  /** What the figure would be without it; NaN where nothing would be left of a mean. */
  readonly without: number;
  /** Values that carry the figure. */
  readonly values: number;
  /** Records that it is of, those without a value among them. */
  readonly records: number;
  /** Whether that is so much that the figure must say so. */
  readonly much: boolean;
  /** The standard deviation of the values (n − 1) of a mean; NaN of fewer than two, and of sums. */
  readonly deviation: number;
}

/** Fewer values are few anyway: nothing is said of the one among them that carries most. */
export const LEAST_VALUES = 5;
/** More of a sum than this, taken away by one record, is much. */
const MUCH_OF_SUM = 1 / 4;
/** More of the deviation than this, by which one record moves a mean, is much… */
const MUCH_OF_DEVIATION = 1 / 10;
/** … of a record that lies so many deviations off: among a few values one always moves the mean, and none is far. */
const FAR_OFF = 3;

/** Measures that a single record can carry. */
export const hasInfluence = ({ kind, column }: Measure, table: Table): boolean =>
  (kind === 'sum' || kind === 'mean') &&
  column !== undefined &&
  isNumeric(columnFor(table, column));

/**
 * What one figure of a group rests on; null without a value.
 * @param moments with extremes and squares for a mean
 * @param records how many records the group has
 */
export function influenceOf(
  kind: 'sum' | 'mean',
  figure: number,
  values: Float64Array,
  moments: Moments,
  group: number,
  records: number,
): Influence | null {
  const n = moments.count(group);
  if (n === 0 || figure !== figure) return null;
  const record = moments.farthest(group, kind === 'sum' ? 0 : figure);
  if (record < 0) return null;
  const value = values[record];
  const without =
    kind === 'sum' ? figure - value : n > 1 ? figure - (value - figure) / (n - 1) : NaN;
  const moved = Math.abs(figure - without);
  const deviation = kind === 'mean' ? moments.deviation(group) : NaN;
  const much =
    n >= LEAST_VALUES &&
    (kind === 'sum'
      ? moved > Math.abs(figure) * MUCH_OF_SUM
      : moved > deviation * MUCH_OF_DEVIATION && Math.abs(value - figure) > deviation * FAR_OFF);
  return { record, value, without, values: n, records, much, deviation };
}

/** What the figures of one computation rest on, by grouping, measure and group. */
export interface Influences {
  at(grouping: number, measure: number, group: number): Influence | null;
}

/**
 * Every measure for every grouping, and what sums and means of numbers rest on, from the same pass
 * over the records.
 * @throws UnknownColumn, ExpressionError
 */
export function* computeInfluences(
  input: Leafed,
  groupings: readonly Grouping[],
  measures: readonly Measure[],
): Task<{ readonly figures: Float64Array[][]; readonly influences: Influences }> {
  const asked: Measure[] = [...measures, { kind: 'records' }];
  const { figures: withRecords, moments } = yield* computeWithMoments(input, groupings, asked);
  const records = withRecords.map((of) => of[measures.length]);
  const figures = withRecords.map((of) => of.slice(0, measures.length));
  const values = measures.map(({ column: ref }) => {
    const column = ref === undefined ? null : columnFor(input.table, ref);
    return column && isNumeric(column) && !input.table.weights ? column.values : null;
  });
  return {
    figures,
    influences: {
      at(grouping, measure, group) {
        const of = moments[grouping]?.[measure];
        const own = values[measure];
        const { kind } = measures[measure];
        if (!of || !own || (kind !== 'sum' && kind !== 'mean')) return null;
        const figure = figures[grouping][measure][group];
        return influenceOf(kind, figure, own, of, group, records[grouping][group]);
      },
    },
  };
}

function scalarFor(table: Table, ref: string): ScalarColumn {
  const column = columnFor(table, ref);
  if (!isNumeric(column)) throw new RangeError(`“${column.name}” holds no numbers.`);
  return column;
}

/** `record 8,214 (1,341,175.00)` @param of the column of figures that rest on it */
export function influentialRecord(
  table: Table,
  of: FigureColumn,
  { record, value }: Influence,
  formats: Formats = {},
): string {
  const column = scalarFor(table, of.measure?.column ?? '');
  return `record ${showCount(recordNumber(record))} (${showScalar(column, value, formatOf(column, formats))})`;
}

/** `Rests on record 8,214 (1,341,175.00): 7,944,154.25 without it.` */
export const influenceWords = (
  table: Table,
  column: FigureColumn,
  rests: Influence,
  formats: Formats = {},
): string =>
  `Rests on ${influentialRecord(table, column, rests, formats)}: ${figureText(column, figureOf(rests.without), formats)} without it.`;

/** How many of how many records have a value to add up. */
export type Coverage = Pick<Influence, 'values' | 'records'>;

/** `29 of 31`: how many of how many records have a value, of a sum that leaves some out; else empty. */
export const gapsText = (measure: Measure | undefined, of: Coverage | null): string =>
  measure?.kind === 'sum' && of && of.values > 0 && of.values < of.records
    ? `${showCount(of.values)} of ${showCount(of.records)}`
    : '';

/** The mark of a sum of fewer values than records; none where each has one, and of other measures. */
export function gapsMark(measure: Measure | undefined, place: number, of: Coverage | null): Mark[] {
  const short = gapsText(measure, of);
  if (!of || !short) return [];
  const left = showCount(of.records - of.values);
  const words = `${short} have a value; the sum leaves the other ${left} out.`;
  return [{ column: place, kind: 'gaps', words, short }];
}

/** The marks of a figure: that one record carries it, and that it is a sum of fewer values than records. */
export function influenceMarks(
  table: Table,
  column: FigureColumn,
  place: number,
  rests: Influence | null,
): Mark[] {
  if (!rests) return [];
  const gaps = gapsMark(column.measure, place, rests);
  if (!rests.much) return gaps;
  const mark: Mark = {
    column: place,
    kind: 'rests',
    words: influenceWords(table, column, rests),
    record: recordNumber(rests.record),
    without: figureOf(rests.without),
  };
  return [mark, ...gaps];
}

/**
 * The mark of a share whose figure one record carries, where the share would be another without it:
 * the record leaves the figure and the whole.
 * @param of the column of the figure; `whole`: what the figure was divided by
 */
export function shareRestsMark(
  table: Table,
  of: FigureColumn,
  share: FigureColumn,
  place: number,
  rests: Influence | null,
  whole: number,
): Mark[] {
  if (!rests?.much || of.measure?.kind !== 'sum') return [];
  const without = figureOf(whole === rests.value ? NaN : rests.without / (whole - rests.value));
  if (without === figureOf((rests.without + rests.value) / whole)) return [];
  return [
    {
      column: place,
      kind: 'rests',
      words: `Rests on ${influentialRecord(table, of, rests)}: ${figureText(share, without)} without it.`,
      record: recordNumber(rests.record),
      without,
    },
  ];
}

/** The deviation of a row's only mean. */
export const deviationOf = (
  measure: Measure | undefined,
  column: number,
  rests: Influence | null,
): { deviations?: Deviation[] } =>
  rests && measure?.kind === 'mean'
    ? { deviations: [{ column, value: figureOf(rests.deviation) }] }
    : {};

/**
 * The deviations of a row's means.
 * @param of what its figures rest on, by the places of their columns
 */
export function deviationsOf(
  columns: readonly FigureColumn[],
  of: Iterable<readonly [column: number, rests: Influence | null]>,
): { deviations?: Deviation[] } {
  const deviations: Deviation[] = [];
  for (const [column, rests] of of)
    if (rests && columns[column].measure?.kind === 'mean')
      deviations.push({ column, value: figureOf(rests.deviation) });
  return deviations.length ? { deviations } : {};
}
