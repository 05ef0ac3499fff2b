import { columnFor } from '../expression/columnFor';
import { MEASURES, needsOther } from '../measure/measure';
import { valuesOf } from '../measure/valuesOf';
import { evaluate } from '../scope/evaluate';
import { showScalar } from '../table/cell';
import { isText } from '../table/column';
import { and, bitsetOf, emptyBitset, members, or, type Bitset } from '../table/bitset';
import { counted } from '../table/format';
import { arithmeticWords, skipped } from './arithmetic';
import { recordsOf, selectionOf, type Base } from './base';
import type {
  Figure,
  FigureColumn,
  FigurePlace,
  FigureRow,
  FigureTable,
  TallyResult,
  Where,
} from './result';

/** What stands behind one figure of a result. */
export interface FigureBehind {
  readonly figure: Figure;
  /** Record numbers from 0, rising. */
  readonly records: Int32Array;
  /** Of those, how many have a value, and how many were skipped. */
  readonly values: number;
  readonly blanks: number;
  readonly unread: number;
  /** How the figure follows from them, in words. */
  readonly arithmetic: string;
  /** Empty unless few records carry it. */
  readonly warning: string;
}

/** A place that the result does not have. */
export class NoSuchFigure extends Error {
  override name = 'NoSuchFigure';
}

const FEW = 10;

/**
 * The records, the skipped ones and the arithmetic behind a figure.
 * @param base the list the result was reckoned from
 * @throws NoSuchFigure
 */
export function behind(base: Base, result: TallyResult, place: FigurePlace): FigureBehind {
  const { table, row, column, at } = find(result, place);
  const reached = rowsReached(table, row, column);
  const selection = selectionOf(base, result.scope);
  let records = emptyBitset(base.table.length);
  for (const r of reached)
    records = or(records, recordsWithin(base, selection, [r.where, column.where]));
  const found = members(records);
  const figure = row.cells[at];
  const { measure } = column;
  if (!measure || reached.length > 1)
    return {
      figure,
      records: found,
      values: found.length,
      blanks: 0,
      unread: 0,
      arithmetic: column.says ?? 'A label of the row.',
      warning: '',
    };
  const of = measure.column === undefined ? null : columnFor(base.table, measure.column);
  const { blanks, unread } = of ? skipped(of, found) : { blanks: 0, unread: 0 };
  const values = found.length - blanks - unread;
  return {
    figure,
    records: found,
    values,
    blanks,
    unread,
    arithmetic: arithmeticWords({
      measure,
      column: of,
      records: found,
      values,
      show: (v) => (of && !isText(of) ? showScalar(of, v) : String(v)),
      whole: () => (of ? sumOf(valuesOf(of).values, recordsOf(selection)) : NaN),
    }),
    warning: fewWarning(values, measure.kind),
  };
}

function fewWarning(values: number, kind: keyof typeof MEASURES): string {
  const { figure, adds } = MEASURES[kind];
  if (adds || figure === 'count' || values === 0 || values >= FEW) return '';
  const rests = needsOther(kind) === 'shown' ? 'stands on' : 'rests on';
  return `This ${rests} only ${counted(values, 'value')}.`;
}

function sumOf(values: Float64Array, records: Int32Array): number {
  let sum = 0;
  for (const i of records) if (values[i] === values[i]) sum += values[i];
  return sum;
}

interface Found {
  readonly table: FigureTable;
  readonly row: FigureRow;
  readonly column: FigureColumn;
  readonly at: number;
}

function find(result: TallyResult, place: FigurePlace): Found {
  const table =
    typeof place.table === 'number'
      ? result.tables[place.table]
      : result.tables.find((t) => t.name === place.table);
  if (!table) throw new NoSuchFigure(`The result has no table ${place.table}.`);
  const row = table.rows[place.row];
  if (!row)
    throw new NoSuchFigure(`The table has ${counted(table.rows.length, 'row')}, counted from 0.`);
  const at =
    typeof place.column === 'number'
      ? place.column
      : table.columns.findIndex((c) => c.key === place.column || c.title === place.column);
  const column = table.columns[at];
  if (!column) throw new NoSuchFigure(`The table has no column ${place.column}.`);
  return { table, row, column, at };
}

/** The rows a figure stands on: its own, and those its column reaches. */
function rowsReached(table: FigureTable, row: FigureRow, { reach }: FigureColumn): FigureRow[] {
  if (!reach) return [row];
  const level = table.rows.filter((r) => r.level === row.level && r.kind === row.kind);
  const at = level.indexOf(row);
  if (reach === 'above') return level.slice(0, at + 1);
  if (reach === 'run') return level.slice(0, at + 1).filter((r) => r.run === row.run);
  return reach.flatMap((distance) => level[at + distance] ?? []);
}

/** Records of a selection that meet all of these. */
export function recordsWithin(
  base: Base,
  selection: Bitset,
  wheres: readonly (Where | undefined)[],
): Bitset {
  let out = selection;
  for (const where of wheres) {
    if (where?.condition) out = and(out, evaluate(base.table, where.condition, selection).yes);
    if (where?.records)
      out = and(
        out,
        bitsetOf(
          base.table.length,
          where.records.filter((i) => i < base.table.length),
        ),
      );
  }
  return out;
}
