import { EngineError, NoSuchFigure } from '../../core/errors';
import { showCell } from '../../core/table/cell';
import { columnFor } from '../../core/expression/columnFor';
import { recordNumber } from '../../core/table/recordNumber';
import type { Elsewhere } from '../../core/tally/answer/answer';
import { findFigure } from '../../core/tally/answer/findFigure';
import type { Task } from '../../core/task/task';
import type { ArgsOf, Place, ReplyOf } from '../protocol';
import type { Session } from '../session';

/** Columns that name a record, where those that matter are few. */
const COLUMNS = 5;

/** Records of the other list that a figure's row stands on; null where the tally looks at none. */
export function* elsewhereOf(session: Session, place: Place): Task<Elsewhere | null> {
  const { answer, refused } = yield* session.answer(place.tally, place.scope);
  if (!answer) throw new EngineError('noPlace', refused || 'This tally has no figures.');
  if (!answer.elsewhere) return null;
  const { n, table } = yield* findFigure(answer, place);
  return table === answer.tables[0] ? yield* answer.elsewhere(n) : null;
}

/** A stretch of the records of another list behind a figure. */
export function* answerElsewhere(
  session: Session,
  { place, from, count }: ArgsOf<'elsewhere'>,
): Task<ReplyOf<'elsewhere'>> {
  const found = yield* elsewhereOf(session, place);
  if (!found) throw new NoSuchFigure('This figure stands on no other list.');
  const { table, records, list } = found;
  const named = found.columns.map((ref) => columnFor(table, ref));
  const more = table.columns.filter((column) => !named.includes(column));
  const columns = [...new Set([...named, ...more])].slice(0, Math.max(COLUMNS, named.length));
  return {
    list,
    total: records.length,
    columns: columns.map((column) => ({ name: column.name, right: column.type === 'number' })),
    records: Array.from(records.subarray(from, from + count), (record) => ({
      number: recordNumber(record),
      cells: columns.map((column) => showCell(column, record)),
    })),
  };
}
