import { askOf } from '../../core/bench/askOf';
import { figureWords, type FigureRecord } from '../../core/bench/figureRecord';
import type { Task } from '../../core/task/task';
import { figureText } from '../../core/tally/answer/figureText';
import { tablePrint } from '../../core/table/print';
import type { Table } from '../../core/table/table';
import { overScope, type Session } from '../session';
import type { ArgsOf } from '../protocol';
import { opened } from './behind';

const prints = new WeakMap<Table, string>();

/** Where a figure comes from, so that it can be computed again from the file. */
export function* answerFigureRecord(
  session: Session,
  { place }: ArgsOf<'figureRecord'>,
): Task<FigureRecord> {
  const { figure, deviation, column, where, records } = yield* opened(session, place);
  const { name, table, recipe } = session.list;
  let print = prints.get(table);
  if (!print) prints.set(table, (print = yield* tablePrint(table)));
  const { tally, scope, ...at } = place;
  const item = session.item(tally);
  return {
    version: 2,
    words: figureWords({ where, column }),
    shown: figureText(column, figure, session.doc.formats, deviation),
    list: { name, records: table.length, print, recipe },
    ask: askOf({ ...session.doc, tray: [{ ...item, tally: overScope(item.tally, scope) }] }),
    place: at,
    figure,
    records: records.length,
  };
}
