import { answerAsk } from '../../core/ask/answer';
import { toParts } from '../../core/ask/resultParts';
import { askOf } from '../../core/bench/askOf';
import { isLedger } from '../../core/bench/tray';
import { takingAll } from '../../core/prepare/reshape';
import { inStretches, partOf, type Steps } from '../../core/steps/steps';
import { encodeRecords } from '../../core/table/arrowWrite';
import type { Held } from '../held';
import type { ArgsOf, ReplyOf } from '../protocol';
import { putInOrder } from '../../core/table/recordOrder';

/** Cells of one part of the records: what is encoded between two pauses. */
const CELLS = 1 << 15;

/** Tallies of the bench as the answer to its ask: what the command line and HTTP give for them. */
export function* answerAsked(held: Held, { tallies }: ArgsOf<'asked'>): Steps<ReplyOf<'asked'>> {
  const tray = held.doc.tray.filter(({ id }) => tallies.includes(id));
  const { result } = yield* partOf(answerAsk(held.list, askOf({ ...held.doc, tray })), 0, 0.7);
  return { parts: yield* partOf(toParts(result), 0.7, 1) };
}

/** The counted records in the order of a tally, every column with its type, as Arrow streams one behind the other. */
export function* answerCountedRecords(
  held: Held,
  { tally }: ArgsOf<'countedRecords'>,
): Steps<ReplyOf<'countedRecords'>> {
  const order = isLedger(held.item(tally))
    ? (yield* held.ledger(tally)).ledger.order
    : held.stand.base.order;
  const { counted } = held.stand.base;
  const records = yield* putInOrder(order, counted);
  const table = yield* takingAll(held.table, records);
  const parts: Uint8Array[] = [];
  const most = Math.max(1, Math.floor(CELLS / Math.max(1, table.columns.length)));
  yield* inStretches(
    // A list of no record has columns all the same.
    Math.max(1, records.length),
    (from, to) => void parts.push(encodeRecords(table, from, Math.min(to, records.length))),
    most,
    true,
  );
  return { records: records.length, parts };
}
