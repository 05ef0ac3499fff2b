import { TallyRefused } from '../errors';
import { inStretches, type Task } from '../task/task';
import type { Column, ScalarColumn } from '../table/column';
import type { Table } from '../table/table';
import type { DirectTotal } from './compensated';
import { Moments } from './moments';
import { valuesOf } from './valuesOf';

/*
 * A condensed table: each row stands for all records that are the same in some columns. Of those columns
 * it holds the values, of the others partial aggregates, which merge.
 */

/** What a column comes to in the records of each row. */
export interface PartialAggregates {
  /** Count, sum, extremes and squared deviations. */
  readonly moments: Moments;
  /** Σ|x|, which bounds the rounding of the sum. */
  readonly magnitude: Float64Array;
  /** Cells that could not be read. */
  readonly unread: Float64Array;
}

/** A column of numbers whose single values are gone. */
export interface PartialColumn extends ScalarColumn {
  readonly partial: PartialAggregates;
}

export const isPartial = (column: Column): column is PartialColumn => 'partial' in column;

/**
 * A column of partial aggregates. Whoever asks it for single values is refused: none of them is guessed.
 * @param facts what is known of the column besides its values
 */
export function partialColumn(
  facts: Pick<ScalarColumn, 'id' | 'name' | 'unit' | 'type' | 'decimals' | 'percent' | 'grain'>,
  partial: PartialAggregates,
): PartialColumn {
  return {
    ...facts,
    unread: new Map(),
    partial,
    get values(): Float64Array {
      throw new TallyRefused(
        `This needs every single value of “${facts.name}”, and the list was read in stretches.`,
      );
    },
  };
}

/** A column that a condensed table goes without: its name and type are known, no value is. */
export function absentColumn(column: Column): Column {
  const refused = (): never => {
    throw new TallyRefused(`“${column.name}” was not kept while the list was read in stretches.`);
  };
  const { id, name, unit } = column;
  if (column.type === 'text')
    return {
      id,
      name,
      unit,
      type: 'text',
      dictionary: [],
      get codes(): Int32Array {
        return refused();
      },
    };
  const { type, decimals, percent, grain } = column;
  return {
    ...{ id, name, unit, type, decimals, percent, grain },
    unread: new Map(),
    get values(): Float64Array {
      return refused();
    },
  };
}

/**
 * What each row of a condensed table comes to: its partial aggregates, or where the values are kept, as
 * many times the one value as the row stands for records. Null for a table of single records.
 */
export function* momentsByRow(table: Table, column: Column): Task<Moments | null> {
  if (isPartial(column)) return column.partial.moments;
  if (!table.weights) return null;
  const { values } = yield* valuesOf(column);
  return yield* Moments.ofEqual(values, table.weights);
}

/** The moments of the rows of a selection, put together by group. @param groupOf group of each row of the table */
export function* mergedMoments(
  byRow: Moments,
  groupOf: Int32Array,
  size: number,
  rows: Int32Array,
): Task<Moments> {
  const of = new Int32Array(byRow.size).fill(-1);
  yield* inStretches(rows.length, (from, to) => {
    for (let k = from; k < to; k++) of[rows[k]] = groupOf[rows[k]];
  });
  return yield* byRow.merged(size, of);
}

/** Sum, count and magnitude of the rows of a selection; null for a table of single records. */
export function* condensedTotal(
  table: Table,
  column: Column,
  rows: Int32Array,
): Task<DirectTotal | null> {
  const byRow = yield* momentsByRow(table, column);
  if (!byRow) return null;
  const merged = yield* mergedMoments(byRow, new Int32Array(byRow.size), 1, rows);
  let magnitude = 0;
  for (const row of rows)
    magnitude += isPartial(column) ? column.partial.magnitude[row] : Math.abs(byRow.sum(row));
  return { total: merged.sum(0), values: merged.count(0), magnitude };
}
