import { z } from 'zod';
import { fullCell } from '../../table/cell';
import {
  COLUMN_TYPES,
  isMissing,
  isText,
  type Column,
  type ColumnType,
  type ScalarColumn,
} from '../../table/column';
import type { Table } from '../../table/table';
import { inferColumn } from '../infer';
import type { ColumnRecipe, Recipe } from '../recipe';
import type { Source } from './source';
import { typedRecipe } from './typed';
import { textOf } from './typedColumn';

/** A column of a database as the database declares it. */
export const DeclaredColumn = z.strictObject({
  name: z.string().max(10_000),
  /** null: nothing is declared, and its cells, which come as texts, are judged as those of a file. */
  type: z.enum(COLUMN_TYPES).nullable(),
  /** Numbers of any length: a column of texts where doubles do not hold them. */
  long: z.boolean().default(false),
  /** What its values are in, where the type itself says it. */
  unit: z.string().max(40).default(''),
});
export type DeclaredColumn = z.infer<typeof DeclaredColumn>;

/** A column in which at least this share of the values has more digits than a double is no number. */
const LONG = 0.15;

/** The records of a database, numbers that are too long to be calculated with as texts with all of their digits. */
export function declaredTable(table: Table, declared: readonly DeclaredColumn[]): Table {
  const columns = table.columns.map((column, k) =>
    declared[k]?.long && !isText(column) && isLong(column) ? asText(column, table.length) : column,
  );
  return { ...table, columns };
}

function isLong({ values, unread }: ScalarColumn): boolean {
  if (unread.size === 0) return false;
  let there = unread.size;
  for (const v of values) if (v === v) there++;
  return unread.size >= LONG * there;
}

/** A column as a list has it that keeps it as text: numbers with all of their digits. */
export const asTypeOf = (column: Column, length: number, type: ColumnType): Column =>
  type === 'text' && !isText(column) ? asText(column, length) : column;

const asText = (column: ScalarColumn, length: number): Column =>
  textOf(
    column,
    length,
    (i) => column.unread.get(i) ?? (isMissing(column, i) ? null : fullCell(column, i)),
  );

/** Cells that are looked at where nothing is declared, even over all records. */
const SAMPLE = 4096;

/**
 * The recipe of a table of a database: its columns as they are declared; where nothing is, as the texts in
 * them read.
 * @throws IntakeError
 */
export function declaredRecipe(
  table: Table,
  source: Source,
  declared: readonly DeclaredColumn[],
): Recipe {
  const recipe = typedRecipe(table, source);
  const columns = recipe.columns.map((column, k): ColumnRecipe => {
    const { type, unit } = declared[k];
    if (type !== null) return { ...column, unit: column.unit || unit };
    const { name: _, ...read } = inferColumn(column.source, sampleOf(table, k));
    return { ...column, ...read };
  });
  return { ...recipe, columns };
}

function sampleOf({ columns, length }: Table, k: number): string[] {
  const stride = Math.max(1, Math.floor(length / SAMPLE));
  const cells: string[] = [];
  for (let i = 0; i < length; i += stride) cells.push(fullCell(columns[k], i));
  return cells;
}
