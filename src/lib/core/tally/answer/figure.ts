import type { GroupCodes } from '../../arrange/groupCodes';
import type { GroupKey } from '../../arrange/groupKey';
import { columnFor } from '../../expression/columnFor';
import { directTotal, roundingBound as boundOf, type DirectTotal } from '../../measure/compensated';
import { MEASURES, needsOther, type Measure } from '../../measure/measure';
import { condensedTotal } from '../../measure/partialColumn';
import { valuesOf } from '../../measure/valuesOf';
import type { Task } from '../../task/task';
import { fullCell, fullScalar } from '../../table/cell';
import { isMissing, isText, isUnread, type Column, type ScalarColumn } from '../../table/column';
import { namesOf, type Table } from '../../table/table';
import { figureOf, type Figure, type FigureColumn, type FigureType } from './result';
import { groupWords, measurePhrase } from '../sentence/words';

/** The column whose values a measure's figures are: its own, or the other one it shows. */
export function shownColumn(measure: Measure, table: Table): Column | null {
  const ref = needsOther(measure.kind) === 'shown' ? measure.other : measure.column;
  return ref === undefined ? null : columnFor(table, ref);
}

/** Kinds whose figure is a value that stood in the list, also of yes/no columns. */
const STANDING = ['first', 'last', 'mode', 'min', 'max', 'atMin', 'atMax'];

function typeOf(measure: Measure, column: Column | null): FigureType {
  const { figure } = MEASURES[measure.kind];
  if (figure === 'count' || figure === 'share') return figure;
  if (!column || figure === 'number' || figure === 'squared') return 'number';
  if (column.type === 'yesno') return STANDING.includes(measure.kind) ? 'yesno' : 'number';
  return column.type;
}

/** How the figures of a measure stand in a result. */
export function measureColumn(measure: Measure, table: Table, key: string): FigureColumn {
  const column = shownColumn(measure, table);
  const type = typeOf(measure, column);
  const squared = MEASURES[measure.kind].figure === 'squared';
  return {
    key,
    title: measurePhrase(measure, namesOf(table)),
    unit: type === 'number' && !squared ? unitOf(measure, column, table) : '',
    type,
    ...(column &&
      !isText(column) &&
      type !== 'count' &&
      type !== 'share' &&
      digitsOf(measure, column)),
    measure,
    ...(ADDING.has(measure.kind) && { adds: { bound: 0 } }),
    ...(measure.kind === 'running' && {
      reach: 'above' as const,
      words: 'The groups up to this one added up, in the order shown.',
    }),
  };
}

/** The unit of a measure's figures: that of its column; of a ratio both, `£ per min`, and none where they are the same. */
function unitOf({ kind, other }: Measure, column: Column | null, table: Table): string {
  const unit = column?.unit ?? '';
  if (kind !== 'ratio' || other === undefined) return unit;
  const below = columnFor(table, other).unit;
  if (unit === below) return '';
  return below ? `${unit} per ${below}`.trim() : unit;
}

/** A column of shares: 0.25 is shown as 25 %. @param says how they come about */
export const shareColumn = (key: string, title: string, words: string): FigureColumn => ({
  key,
  title,
  unit: '',
  type: 'share',
  words,
});

/** Kinds whose figures want a place more than whole values have. */
const FINER = [
  'mean',
  'median',
  'percentile',
  'lowerQuartile',
  'upperQuartile',
  'iqr',
  'trimmedMean',
  'geometricMean',
  'weightedMean',
];

/** How the figures of a measure are written until the analyst says otherwise. */
function digitsOf(
  measure: Measure,
  column: ScalarColumn,
): Pick<FigureColumn, 'decimals' | 'significant' | 'percent' | 'grain' | 'calendar'> {
  const { figure } = MEASURES[measure.kind];
  if (figure === 'squared') return { significant: 5 };
  // A ratio says little without its hundredths, whatever the columns are written with.
  if (measure.kind === 'ratio') return { decimals: 2 };
  if (measure.kind === 'difference') return { decimals: column.decimals };
  if (['date', 'datetime', 'time'].includes(column.type))
    return figure === 'number'
      ? { decimals: 1 }
      : { grain: column.grain, ...(column.calendar && { calendar: column.calendar }) };
  const finer = figure === 'number' || FINER.includes(measure.kind);
  const own = column.percent ? Math.max(0, column.decimals - 2) : column.decimals;
  return {
    decimals: finer ? Math.max(own, 1) : own,
    ...(column.percent && figure !== 'number' && { percent: true }),
  };
}

const ADDING = new Set(['records', 'values', 'blanks', 'unread', 'sum']);

/** The count of records, as it stands beside the measures of every kind. */
export const RECORDS_COLUMN: FigureColumn = {
  key: 'records',
  title: 'Records',
  unit: '',
  type: 'count',
  measure: { kind: 'records' },
  adds: { bound: 0 },
};

/** The labels of groups, a column for each key. */
export const labelColumns = (
  keys: readonly GroupKey[],
  codes: readonly GroupCodes[],
  table: Table,
): FigureColumn[] => keys.map((key, k) => labelColumn(`g${k + 1}`, key, codes[k], table));

/** The labels of one key. */
export const labelColumn = (
  name: string,
  key: GroupKey,
  codes: GroupCodes,
  table: Table,
): FigureColumn => ({
  key: name,
  title: groupWords(key, namesOf(table)),
  unit: '',
  type: 'text',
  keyType: codes.keyType,
});

/** A label column whose labels are plain texts of ours. */
export const textLabel = (key: string, title: string): FigureColumn => ({
  key,
  title,
  unit: '',
  type: 'text',
});

/** A computed number as a figure: texts by their dictionary, dates in ISO 8601, NaN as none. */
export function figureFrom(measure: Measure, column: Column | null, value: number): Figure {
  if (value !== value) return null;
  const { figure } = MEASURES[measure.kind];
  if (!column || (figure !== 'column' && figure !== 'other')) return figureOf(value);
  if (isText(column)) return column.dictionary[value] ?? null;
  switch (column.type) {
    case 'number':
      return figureOf(value);
    case 'yesno':
      return STANDING.includes(measure.kind) ? fullScalar(column, value) : figureOf(value);
    default:
      return fullScalar(column, Math.round(value));
  }
}

/**
 * How far rounding may take a sum apart from its parts: n · 2⁻⁵² of the sum of magnitudes
 * (Neumaier 1974). 0 for counts.
 */
export function* roundingBound(measure: Measure, table: Table, records: Int32Array): Task<number> {
  if (measure.kind !== 'sum' || measure.column === undefined) return 0;
  return boundOf(yield* totalOfColumn(table, columnFor(table, measure.column), records));
}

/** The sum of a column straight over a selection, of its partial aggregates where that is all there is. */
export function* totalOfColumn(
  table: Table,
  column: Column,
  records: Int32Array,
): Task<DirectTotal> {
  return (
    (yield* condensedTotal(table, column, records)) ??
    (yield* totalOf((yield* valuesOf(column)).values, records))
  );
}

/** By selection and column, kept as long as both. */
const totals = new WeakMap<Int32Array, WeakMap<Float64Array, DirectTotal>>();

/** The sum of a column straight over a selection, kept as long as both. */
export function* totalOf(values: Float64Array, records: Int32Array): Task<DirectTotal> {
  let known = totals.get(records);
  if (!known) totals.set(records, (known = new WeakMap()));
  let total = known.get(values);
  if (total === undefined) known.set(values, (total = yield* directTotal(values, records)));
  return total;
}

/** Measure columns with the bounds of those that add. */
export function* measureColumns(
  measures: readonly Measure[],
  table: Table,
  records: Int32Array,
): Task<FigureColumn[]> {
  const columns: FigureColumn[] = [];
  for (const [k, measure] of measures.entries()) {
    const column = measureColumn(measure, table, `m${k + 1}`);
    const bound = column.adds ? yield* roundingBound(measure, table, records) : null;
    columns.push(bound === null ? column : { ...column, adds: { bound } });
  }
  return columns;
}

/** A cell as a figure: in full, an unread one with its text, a blank one as none. */
export function cellFigure(column: Column, record: number): Figure {
  if (isUnread(column, record)) return fullCell(column, record);
  if (isMissing(column, record)) return null;
  if (isText(column)) return fullCell(column, record);
  return column.type === 'number'
    ? column.values[record]
    : fullScalar(column, column.values[record]);
}
