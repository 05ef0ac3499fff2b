import { askOf } from '../../core/bench/askOf';
import type { FigureRecord } from '../../core/bench/figureRecord';
import type { Steps } from '../../core/steps/steps';
import { figureText } from '../../core/tally/figureText';
import { tablePrint } from '../../core/table/print';
import type { Table } from '../../core/table/table';
import { overScope, type Held } from '../held';
import type { ArgsOf } from '../protocol';
import { opened } from './behind';

const prints = new WeakMap<Table, string>();

/** Where a figure comes from, so that it can be computed again from the file. */
export function* answerFigureRecord(
  held: Held,
  { place }: ArgsOf<'figureRecord'>,
): Steps<FigureRecord> {
  const { figure, column, where, records } = yield* opened(held, place);
  const { name, table, recipe } = held.list;
  let print = prints.get(table);
  if (!print) prints.set(table, (print = yield* tablePrint(table)));
  const { tally, scope, ...at } = place;
  const item = held.item(tally);
  return {
    version: 2,
    words: [where, column.title].filter(Boolean).join(', '),
    shown: figureText(column, figure, held.doc.formats),
    list: { name, records: table.length, print, recipe },
    ask: askOf({ ...held.doc, tray: [{ ...item, tally: overScope(item.tally, scope) }] }),
    place: at,
    figure,
    records: records.length,
  };
}
