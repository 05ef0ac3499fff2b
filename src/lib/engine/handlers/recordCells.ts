import type { Task } from '../../core/task/task';
import { fullCell } from '../../core/table/cell';
import { isText } from '../../core/table/column';
import { recordPlace } from '../../core/table/recordNumber';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import { cellOf, correctedCells } from './cells';

/** Every cell of a record in full, with what stood there before a correction. */
export function* answerRecordCells(
  { doc, table }: Session,
  { record }: ArgsOf<'recordCells'>,
): Task<ReplyOf<'recordCells'>> {
  yield undefined;
  const corrected = correctedCells(doc);
  const was = new Map(
    doc.corrections.filter((c) => recordPlace(c.record) === record).map((c) => [c.column, c.was]),
  );
  return table.columns.map((column) => ({
    column: column.id,
    name: column.name,
    text: isText(column) && column.codes[record] < 0 ? '' : fullCell(column, record),
    state: cellOf(doc, column, record, corrected).state,
    was: was.get(column.id) ?? '',
  }));
}
