import { EngineError } from '../../core/errors';
import { inStretches, type Task } from '../../core/task/task';
import { add, emptyBitset, has, type Bitset } from '../../core/table/bitset';
import { keysOfRow, type AnswerTable } from '../../core/tally/answer/answer';
import { columnsInView } from '../../core/tally/answer/columnsInView';
import { cellText } from '../../core/tally/answer/figureText';
import type { Formats } from '../../core/tally/spec/formats';
import { isGrandTotal, isOpen, rowsInView, type RowView } from '../../core/tally/answer/rowOrder';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { Row } from '../replies/tables';
import { fitting } from './weight';

/** A row as the page shows it. @param whole places of rows that have parts */
export function rowOf(
  table: AnswerTable,
  n: number,
  formats: Formats,
  view: RowView | null,
  whole: Bitset,
): Row {
  const row = table.row(n);
  const keys = [...keysOfRow(row, table.labels)];
  const folds = view !== null && row.level > 0 && has(whole, n);
  return {
    place: n,
    kind: row.kind,
    level: row.level,
    keys,
    cells: row.cells.map((_, c) => cellText(table, row, c, formats)),
    figures: [...row.cells],
    marks: row.marks ?? [],
    open: folds ? isOpen(row.level, keys, view) : null,
  };
}

/** The rows that others are a part of. */
export function* wholesOf(table: AnswerTable): Task<Bitset> {
  const wholes = emptyBitset(table.length);
  if (!table.flat)
    yield* inStretches(table.length, (from, to) => {
      for (let n = from; n < to; n++) {
        const whole = table.partOf(n);
        if (whole >= 0) add(wholes, whole);
      }
    });
  return wholes;
}

/** Rows made between two pauses. */
const AT_ONCE = 100;

/** A stretch of a tally's rows as they are looked at; of heavy ones fewer than were asked for. @throws EngineError */
export function* answerRows(
  session: Session,
  { tally, table: name, across, from, count, view }: ArgsOf<'rows'>,
): Task<ReplyOf<'rows'>> {
  const table = yield* tableNamed(session, tally, name);
  const key = JSON.stringify([tally, name, view]);
  const order = yield* session.orders.onceInSteps(key, () => rowsInView(table, view));
  yield undefined;
  const wholes = yield* session.wholes.onceInSteps(`${tally} ${name}`, () => wholesOf(table));
  const seen = columnsInView(table, across);
  const { formats } = session.doc;
  const last = order.length - 1;
  const rows: Row[] = [];
  const fits = fitting();
  for (const n of order.subarray(from, from + count)) {
    const row = rowOf(seen, n, formats, view, wholes);
    if (!fits(row)) break;
    rows.push(row);
    if (rows.length % AT_ONCE === 0) yield undefined;
  }
  return {
    length: order.length,
    rows,
    whole:
      last >= 0 && isGrandTotal(table, order[last])
        ? rowOf(seen, order[last], formats, view, wholes)
        : null,
  };
}

/** @throws EngineError where the tally has no such table */
export function* tableNamed(session: Session, tally: string, name: string): Task<AnswerTable> {
  const { answer } = yield* session.answer(tally);
  const table = answer?.tables.find((t) => t.name === name);
  if (!table) throw new EngineError('noPlace', `This tally has no table “${name}”.`);
  return table;
}
