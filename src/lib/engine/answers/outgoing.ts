import { answerAsk } from '../../core/ask/answer';
import { askOf } from '../../core/bench/askOf';
import { takingAll } from '../../core/prepare/reshape';
import type { Steps } from '../../core/steps/steps';
import { encodeFile } from '../../core/table/arrowWrite';
import type { Held } from '../held';
import type { ReplyOf } from '../protocol';
import { inOrder } from '../../core/table/recordOrder';

/** Tallies of the bench as the answer to its ask: what the command line and HTTP give for them. */
export function* asked(held: Held, tallies: readonly string[]): Steps<ReplyOf<'asked'>> {
  const tray = held.doc.tray.filter(({ id }) => tallies.includes(id));
  return (yield* answerAsk(held.list, askOf({ ...held.doc, tray }))).result;
}

/** The counted records in an order of all, every column with its type, as an Arrow file. */
export function* countedRecords(held: Held, order: Int32Array): Steps<ReplyOf<'countedRecords'>> {
  const { counted } = held.stand.base;
  const records = inOrder(order, counted);
  yield undefined;
  const table = takingAll(held.table, records);
  yield undefined;
  return { records: records.length, arrow: encodeFile(table) };
}
