import { lean, resultOf, tallyResult } from '../../core/ask/answer';
import type { AskResult } from '../../core/ask/result';
import { toParts } from '../../core/ask/resultParts';
import { VERSION } from '../../core/ask/version';
import type { TrayItem } from '../../core/bench/document';
import { recordsOrder } from '../../core/bench/recordsOrder';
import { isLedger } from '../../core/bench/tray';
import { takingAll } from '../../core/prepare/reshape';
import { inStretches, partOf, type Steps } from '../../core/steps/steps';
import { encodeRecords } from '../../core/table/arrowWrite';
import { namesOf } from '../../core/table/table';
import { freezeAll } from '../../core/tally/answer';
import { foot } from '../../core/tally/foot';
import { kindOf } from '../../core/tally/kinds';
import { handedOver } from '../../core/tally/ledger/linesTable';
import type { LedgerSpec } from '../../core/tally/ledger/spec';
import type { FigureRow, FigureTable } from '../../core/tally/result';
import type { Values } from '../../core/write/dialect';
import type { Held } from '../held';
import type { LedgerLayout } from '../ledger/layout';
import { NOTHING_COMPARED } from './answer';
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
  held: Held,
  { tallies: ids, values, report }: ArgsOf<'asked'>,
): Steps<ReplyOf<'asked'>> {
  const { doc } = held;
  const tallies: AskResult['tallies'] = [];
  for (const [k, id] of ids.entries()) {
    const item = held.item(id);
    const tally = yield* partOf(tallyAsked(held, item, values), k, k + 1);
    tallies.push({ ...tally, ...(report && item.note && { note: item.note }) });
  }
  const result: AskResult = {
    version: VERSION,
    ...resultOf(held.list, held.stand, tallies, doc.formats),
    ...(report && {
      report: { title: doc.report.title || held.listName, intro: doc.report.intro },
    }),
    also: [],
  };
  return { parts: yield* toParts(result) };
}

function* tallyAsked(held: Held, item: TrayItem, values: Values): Steps<AskedResult> {
  const ledger = isLedger(item) ? yield* held.ledger(item.id) : null;
  const { answer, base, refused, faults, tally } = yield* held.computed(
    ledger ? ofLevelsShown(ledger) : item.tally,
  );
  if (!answer) {
    const [fault] = faults;
    return {
      ...(item.name !== undefined && { title: item.name }),
      kind: tally.kind,
      words: kindOf(tally).plain(namesOf(held.table), held.listName),
      scope: tally.scope,
      records: 0,
      tables: [],
      warnings: [],
      footing: NOTHING_COMPARED,
      refused: refused || (fault ? `${fault.message} ${fault.remedy}` : 'It has no figures.'),
    };
  }
  const footing = (yield* held.footing(item.id)) ?? (yield* foot(base, answer));
  const tables =
    ledger && values === 'shown'
      ? [yield* frozenLines(ledger)]
      : yield* freezeAll(answer.tables, lean([], held.doc.formats));
  return tallyResult(item.name, answer, tables, footing);
}

/** A ledger down to the level that is shown, its records where these are. */
const ofLevelsShown = ({ spec, lines, item }: LedgerLayout): LedgerSpec => ({
  ...spec,
  groups: spec.groups.slice(0, item.view.showDown),
  records: spec.records || lines.showsRecords,
});

/** The lines of a ledger that are handed over, as plain data: there may be one for each record. */
function* frozenLines({ table, view }: LedgerLayout): Steps<FigureTable> {
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
  held: Held,
  _: ArgsOf<'countedRecords'>,
): Steps<ReplyOf<'countedRecords'>> {
  const { base } = held.stand;
  const records = yield* putInOrder(yield* recordsOrder(base, held.doc), base.counted);
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
