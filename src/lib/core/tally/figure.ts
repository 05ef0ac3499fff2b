import type { GroupKey } from '../arrange/groupKey';
import { columnFor } from '../expression/columnFor';
import { MEASURES, needsOther, type Measure } from '../measure/measure';
import { valuesOf } from '../measure/valuesOf';
import { fullScalar } from '../table/cell';
import { isText, type Column } from '../table/column';
import { namesOf, type Table } from '../table/table';
import { figureOf, type Figure, type FigureColumn, type FigureType } from './result';
import { groupWords, measurePhrase } from './words';

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
  return {
    key,
    title: measurePhrase(measure, namesOf(table)),
    unit:
      type === 'number' && MEASURES[measure.kind].figure !== 'squared' ? (column?.unit ?? '') : '',
    type,
    ...(type === 'number' && column && !isText(column) && { decimals: column.decimals }),
    measure,
    ...(ADDING.has(measure.kind) && { adds: { bound: 0 } }),
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
export const labelColumns = (keys: readonly GroupKey[], table: Table): FigureColumn[] =>
  keys.map((key, k) => ({
    key: `g${k + 1}`,
    title: groupWords(key, namesOf(table)),
    unit: '',
    type: 'text',
  }));

/** A reckoned number as a figure: texts by their dictionary, dates in ISO 8601, NaN as none. */
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
export function roundingBound(measure: Measure, table: Table, records: Int32Array): number {
  if (measure.kind !== 'sum' || measure.column === undefined) return 0;
  const { values } = valuesOf(columnFor(table, measure.column));
  let known = bounds.get(records);
  if (!known) bounds.set(records, (known = new WeakMap()));
  let bound = known.get(values);
  if (bound === undefined) known.set(values, (bound = boundOf(values, records)));
  return bound;
}

/** By selection and column, kept as long as both. */
const bounds = new WeakMap<Int32Array, WeakMap<Float64Array, number>>();

function boundOf(values: Float64Array, records: Int32Array): number {
  let [n, magnitude] = [0, 0];
  for (let k = 0; k < records.length; k++) {
    const v = values[records[k]];
    if (v !== v) continue;
    n++;
    magnitude += Math.abs(v);
  }
  return n * 2 ** -52 * magnitude;
}

/** Measure columns with the bounds of those that add. */
export const measureColumns = (
  measures: readonly Measure[],
  table: Table,
  records: Int32Array,
): FigureColumn[] =>
  measures.map((measure, k) => {
    const column = measureColumn(measure, table, `m${k + 1}`);
    return column.adds
      ? { ...column, adds: { bound: roundingBound(measure, table, records) } }
      : column;
  });
