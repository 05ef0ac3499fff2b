import type { Condition } from '../../selection/condition';
import { inStretches, type Task } from '../../task/task';
import { and, type Bitset } from '../../table/bitset';
import type { AnswerTable } from '../answer/answer';
import type { TallyInput } from '../input/input';
import type { Found } from '../answer/findFigure';
import type { CarriedFrom } from '../groups/carriedFrom';
import { recordsWithin } from '../input/recordsWithin';
import type { FigureColumn, FigureRow } from '../answer/result';
import { anyOf } from '../spec/whereCondition';

/** What a figure stands on: the records of its row, or of all the rows that it reaches, and what those meet. */
export function* standsOn(
  input: TallyInput,
  selection: Bitset,
  { table, n, row, column, at }: Found,
): Task<CarriedFrom> {
  if (table.stands) return yield* table.stands(n, at);
  const within = function* (where: Condition | undefined, rows = 1): Task<CarriedFrom> {
    const records = yield* recordsWithin(input, selection, [where, column.where]);
    return { rows, records, where: where ?? null };
  };
  const own = row.instead?.find(({ columns }) => columns.includes(at));
  if (own) return yield* within(own.where);
  const { reach } = column;
  if (!reach) return yield* within(row.where);
  if (!Array.isArray(reach) && table.carried) {
    const carried = yield* table.carried(n);
    if (!carried) return yield* within(row.where);
    const counted = yield* recordsWithin(input, selection, [column.where]);
    return { ...carried, records: and(carried.records, counted) };
  }
  const wheres = (yield* rowsReached(table, n, row, reach)).map(({ where }) => where);
  // Where one of the rows is the whole, so are all of them together.
  return wheres.includes(undefined)
    ? yield* within(undefined, wheres.length)
    : yield* within(anyOf(wheres.flatMap((where) => where ?? [])), wheres.length);
}

/** Rows looked through between two pauses: each may be made for it. */
const ROWS = 1024;

/** The rows that a figure reaches, its own among them. */
function* rowsReached(
  table: AnswerTable,
  n: number,
  row: FigureRow,
  reach: NonNullable<FigureColumn['reach']>,
): Task<FigureRow[]> {
  const level: FigureRow[] = [];
  let at = -1;
  // Nothing behind the row is reached by sums down to it.
  const last = Array.isArray(reach) ? table.length : n + 1;
  yield* inStretches(
    last,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const other = table.row(k);
        if (other.level !== row.level || other.kind !== row.kind) continue;
        level.push(other);
        if (k === n) at = level.length - 1;
      }
    },
    ROWS,
  );
  if (reach === 'above') return level;
  if (reach === 'run') return level.filter((r) => r.run === row.run);
  return reach.flatMap((distance) => level[at + distance] ?? []);
}
