import { recordsSelected } from '../../../table/recordCounts';
import type { Table } from '../../../table/table';
import { and, type Bitset } from '../../../table/bitset';
import { counted } from '../../../table/format';
import { tableOf, type AnswerTable } from '../../answer/answer';
import { RECORDS_COLUMN, textLabel } from '../../answer/figure';
import type { Condition } from '../../../selection/condition';
import type { FigureColumn, FigureRow } from '../../answer/result';
import { anyOf, noneOf } from '../../spec/whereCondition';
import type { Row } from './row';

/** Rows that a matrix of overlaps can be read with. */
const MOST_ROWS = 12;

/** Which conditions overlap and by how much, and how many records meet none of them or more than one. */
export function overlapTables(
  table: Table,
  rows: readonly Row[],
  { none, several }: { none: Bitset; several: Bitset },
): AnswerTable[] {
  const conditions = rows.flatMap(({ condition }) => condition ?? []);
  if (conditions.length < 2 || conditions.length !== rows.length) return [];
  const pairs = conditions.flatMap((a, k) =>
    conditions.slice(k + 1).map((b): Condition => ({ kind: 'all', not: false, parts: [a, b] })),
  );
  const line = (name: string, set: Bitset, where: Condition | null): FigureRow => ({
    kind: 'outside',
    level: 0,
    cells: [name, recordsSelected(table, set)],
    where: where ?? undefined,
  });
  const coverage = tableOf({
    name: 'coverage',
    caption: 'Records that meet none of the rows, and more than one',
    labels: 1,
    columns: [textLabel('meets', 'Meets'), { ...RECORDS_COLUMN, adds: undefined }],
    rows: [
      line('none of the rows', none, noneOf(conditions)),
      line('more than one row', several, anyOf(pairs)),
    ],
  });
  return rows.length > MOST_ROWS ? [coverage] : [overlap(table, rows), coverage];
}

/** Records in both of two rows; where a row meets itself, all of its own. */
function overlap(table: Table, rows: readonly Row[]): AnswerTable {
  return tableOf({
    name: 'overlap',
    caption: `Which rows overlap: records in both, of ${counted(rows.length, 'row')}`,
    labels: 1,
    columns: [
      textLabel('row', 'Where'),
      ...rows.map(({ name, condition }, k): FigureColumn => ({
        ...RECORDS_COLUMN,
        key: `r${k + 1}`,
        title: name,
        adds: undefined,
        where: condition,
      })),
    ],
    rows: rows.map((row): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [
        row.name,
        ...rows.map((other) => recordsSelected(table, and(row.selection, other.selection))),
      ],
      ...(row.key !== undefined && { keys: [row.key] }),
      where: row.condition,
    })),
  });
}
