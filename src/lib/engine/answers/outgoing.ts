import { answerAsk } from '../../core/ask/answer';
import { askOf } from '../../core/bench/askOf';
import { isLedger } from '../../core/bench/tray';
import { takingAll } from '../../core/prepare/reshape';
import type { Steps } from '../../core/steps/steps';
import { encodeFile } from '../../core/table/arrowWrite';
import type { Held } from '../held';
import type { ArgsOf, ReplyOf } from '../protocol';
import { putInOrder } from '../../core/table/recordOrder';

/** Tallies of the bench as the answer to its ask: what the command line and HTTP give for them. */
export function* answerAsked(held: Held, { tallies }: ArgsOf<'asked'>): Steps<ReplyOf<'asked'>> {
  const tray = held.doc.tray.filter(({ id }) => tallies.includes(id));
  return (yield* answerAsk(held.list, askOf({ ...held.doc, tray }))).result;
}

/** The counted records in the order of a tally, every column with its type, as an Arrow file. */
export function* answerCountedRecords(
  held: Held,
  { tally }: ArgsOf<'countedRecords'>,
): Steps<ReplyOf<'countedRecords'>> {
  const order = isLedger(held.item(tally))
    ? (yield* held.ledger(tally)).ledger.order
    : held.stand.base.order;
  const { counted } = held.stand.base;
  const records = yield* putInOrder(order, counted);
  yield undefined;
  const table = yield* takingAll(held.table, records);
  yield undefined;
  return { records: records.length, arrow: encodeFile(table) };
}
