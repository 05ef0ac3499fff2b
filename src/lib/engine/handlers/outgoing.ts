import { lean, resultOf, tallyResult } from '../../core/ask/answerAsk';
import type { AskResult } from '../../core/ask/result';
import { toParts } from '../../core/ask/resultParts';
import { VERSION } from '../../core/ask/version';
import type { TrayItem } from '../../core/bench/document';
import { recordsOrder } from '../../core/bench/recordsOrder';
import { isLedger } from '../../core/bench/tray';
import { takingAll } from '../../core/prepare/reshape';
import { inStretches, partOf, type Task } from '../../core/task/task';
import { encodeRecords } from '../../core/table/arrowWrite';
import { namesOf } from '../../core/table/table';
import { freezeAll } from '../../core/tally/answer/answer';
import { checkFooting } from '../../core/tally/trust/checkFooting';
import { kindOf } from '../../core/tally/kind/kinds';
import { handedOver } from '../../core/tally/kinds/ledger/linesTable';
import type { LedgerSpec } from '../../core/tally/kinds/ledger/spec';
import type { FigureRow, FigureTable } from '../../core/tally/answer/result';
import type { Values } from '../../core/write/dialect';
import type { Session } from '../session';
import type { LedgerLayout } from '../ledger/layout';
import { NOTHING_COMPARED } from './tables';
import type { ArgsOf, ReplyOf } from '../protocol';
import { putInOrder } from '../../core/table/recordOrder';

/** Cells of one part of the records: what is encoded between two pauses. */
const CELLS = 1 << 15;
/** Rows made between two pauses. */
const ROWS_MADE = 1024;

type AskedResult = AskResult['tallies'][number];

/**
 * Tallies of the bench as an answer: what becomes a file in any form. With full values it is what the
 * command line and HTTP give for the bench's ask. A tally that cannot be reckoned says why, and keeps
 * none of the others back.
 */
export function* answerAsked(
  session: Session,
  { tallies: ids, values, report }: ArgsOf<'asked'>,
): Task<ReplyOf<'asked'>> {
  const { doc } = session;
  const tallies: AskResult['tallies'] = [];
  for (const [k, id] of ids.entries()) {
    const item = session.item(id);
    const tally = yield* partOf(tallyAsked(session, item, values), k, k + 1);
    tallies.push({ ...tally, ...(report && item.note && { note: item.note }) });
  }
  const result: AskResult = {
    version: VERSION,
    ...resultOf(session.list, session.resolved, tallies, doc.formats),
    ...(report && {
      report: { title: doc.report.title || session.listName, intro: doc.report.intro },
    }),
    also: [],
  };
  return { parts: yield* toParts(result) };
}

function* tallyAsked(session: Session, item: TrayItem, values: Values): Task<AskedResult> {
  const ledger = isLedger(item) ? yield* session.ledger(item.id) : null;
  const { answer, input, refused, faults, tally } = yield* session.computed(
    ledger ? ofLevelsShown(ledger) : item.tally,
  );
  if (!answer) {
    const [fault] = faults;
    return {
      ...(item.name !== undefined && { title: item.name }),
      kind: tally.kind,
      words: kindOf(tally).plain(namesOf(session.table), session.listName),
      scope: tally.scope,
      records: 0,
      tables: [],
      warnings: [],
      footing: NOTHING_COMPARED,
      refused: refused || (fault ? `${fault.message} ${fault.remedy}` : 'It has no figures.'),
    };
  }
  const footing = (yield* session.footing(item.id)) ?? (yield* checkFooting(input, answer));
  const tables =
    ledger && values === 'shown'
      ? [yield* frozenLines(ledger)]
      : yield* freezeAll(answer.tables, lean([], session.doc.formats));
  return tallyResult(item.name, answer, tables, footing);
}

/** A ledger down to the level that is shown, its records where these are. */
const ofLevelsShown = ({ spec, lines, item }: LedgerLayout): LedgerSpec => ({
  ...spec,
  groups: spec.groups.slice(0, item.view.showDown),
  records: spec.records || lines.showsRecords,
});

/** The lines of a ledger that are handed over, as plain data: there may be one for each record. */
function* frozenLines({ table, view }: LedgerLayout): Task<FigureTable> {
  const rows: FigureRow[] = [];
  const places = yield* handedOver(view);
  yield* inStretches(
    places.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const { where: _, ...row } = table.row(places[k]);
        rows.push(row);
      }
    },
    ROWS_MADE,
  );
  const { name, caption, labels, columns, recordColumns } = table;
  return {
    name,
    caption,
    labels,
    columns: [...columns],
    ...(recordColumns && { recordColumns: [...recordColumns] }),
    rows,
  };
}

/** The counted records in the order of the bench, every column with its type, as Arrow streams one behind the other. */
export function* answerCountedRecords(
  session: Session,
  _: ArgsOf<'countedRecords'>,
): Task<ReplyOf<'countedRecords'>> {
  const { input } = session.resolved;
  const records = yield* putInOrder(yield* recordsOrder(input, session.doc), input.counted);
  const table = yield* takingAll(session.table, records);
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
