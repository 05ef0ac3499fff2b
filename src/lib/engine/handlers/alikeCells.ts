import { inStretches, type Task } from '../../core/task/task';
import { isText } from '../../core/table/column';
import { recordNumber } from '../../core/table/recordNumber';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { Session } from '../session';
import { correctedCells } from './cells';

/** More than these are not put right in one go, nor more than a bench has room for. */
const MOST = 5000;
const MOST_OF_BENCH = 10_000;

/**
 * The numbers of the records whose cell of a column holds the same as that of one of them, itself among them. Cells
 * that were put right already are left alone: their file says something else.
 */
export function* answerAlikeCells(
  { doc, table }: Session,
  { record, column: id }: ArgsOf<'alikeCells'>,
): Task<ReplyOf<'alikeCells'>> {
  const column = table.columns.find((c) => c.id === id);
  if (!column) return { records: [], more: false };
  const records: number[] = [];
  let more = false;
  const corrected = correctedCells(doc);
  const most = Math.min(MOST, MOST_OF_BENCH - doc.corrections.length);
  const take = (i: number): void => {
    if (corrected.has(`${i}/${id}`)) return;
    if (records.length < most) records.push(recordNumber(i));
    else more = true;
  };
  if (isText(column)) {
    const { codes } = column;
    const code = codes[record];
    yield* inStretches(codes.length, (from, to) => {
      for (let i = from; i < to; i++) if (codes[i] === code) take(i);
    });
    return { records, more };
  }
  const { values, unread } = column;
  const text = unread.get(record);
  if (text !== undefined) {
    for (const [i, other] of unread) if (other === text) take(i);
    return { records: records.sort((a, b) => a - b), more };
  }
  const value = values[record];
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) if (Object.is(values[i], value) && !unread.has(i)) take(i);
  });
  return { records, more };
}
