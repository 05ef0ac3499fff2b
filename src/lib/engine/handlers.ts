import { recordPlace } from '../core/table/recordNumber';
import type { Ladder } from '../core/scope/condition';
import { describeCondition } from '../core/scope/describe';
import { conditionWithListed } from '../core/scope/listed';
import { applyLadder } from '../core/scope/ladder';
import type { Steps } from '../core/steps/steps';
import { fullCell } from '../core/table/cell';
import { isLedger } from '../core/bench/tray';
import { isText } from '../core/table/column';
import { columnOf, namesOf } from '../core/table/table';
import { answerFact, answerFooting, answerTally } from './answers/answer';
import { answerQuestions, answerSketch } from './answers/begin';
import { answerBehind, answerBehindRecords, answerCheck } from './answers/behind';
import { cellOf, correctedCells } from './answers/cells';
import { answerFacts, answerValues } from './answers/column';
import { distributionOf } from './answers/distribution';
import { copyShown, fileRecords, fileShown } from './answers/handOver';
import { answerMoved } from './answers/moved';
import { answerMovedRecords } from './answers/movedRecords';
import { asked, countedRecords } from './answers/outgoing';
import { copyTally, fileTally } from './answers/handOverTally';
import { answerLedger, groupAt, labelsOf } from './answers/ledger';
import { answerLines } from './answers/lines';
import { answerFigureRecord } from './answers/figureRecord';
import { answerCited, answerKnown } from './answers/known';
import { answerMatch, answerOther } from './answers/join';
import { answerDraft, answerUses } from './answers/made';
import { answerRows } from './answers/rows';
import { answerShape } from './answers/shape';
import type { Held } from './held';
import type { ArgsOf, Do, ReplyOf } from './protocol';

/** Answers one request of a stand that is held. */
export type Handler<K extends Do> = (held: Held, args: ArgsOf<K>) => Steps<ReplyOf<K>>;

const HEAD_BINS = 10;

/** What each request but `stand` is answered by. */
export const HANDLERS: { readonly [K in Exclude<Do, 'stand'>]: Handler<K> } = {
  *ledger(held, { tally }) {
    return answerLedger(yield* held.ledger(tally));
  },
  *lines(held, { tally, from, count }) {
    return yield* answerLines(yield* held.ledger(tally), from, count);
  },
  *heads(held, { tally }) {
    const { columns } = yield* held.ledger(tally);
    const out: ReplyOf<'heads'> = [];
    for (const { column, cells } of columns.slots) {
      out.push(
        column && cells
          ? yield* distributionOf(columnOf(held.table, column), held.counted, HEAD_BINS, {
              apart: true,
            })
          : { kind: 'none' },
      );
      yield undefined;
    }
    return out;
  },
  answer: answerTally,
  rows: answerRows,
  shape: answerShape,
  fact: answerFact,
  questions: answerQuestions,
  sketch: answerSketch,
  footing: answerFooting,
  behind: answerBehind,
  behindRecords: answerBehindRecords,
  check: answerCheck,
  known: answerKnown,
  cited: answerCited,
  figureRecord: answerFigureRecord,
  *locate(held, { tally, keys }) {
    if (!Array.isArray(keys) || keys.length === 0) return { line: -1 };
    const ledger = yield* held.ledger(tally);
    const { level, group } = groupAt(ledger, keys);
    return { line: ledger.lines.lineOfGroup(level, group) };
  },
  *locateRecord(held, { tally, record }) {
    return { line: (yield* held.ledger(tally)).lines.lineOf(record) };
  },
  *recordsOn(held, { tally, from, to }) {
    const { lines } = yield* held.ledger(tally);
    const records: number[] = [];
    for (let n = from; n <= Math.min(to, lines.length - 1); n++) {
      const line = lines.at(n);
      if (line.kind === 'record') records.push(line.record);
    }
    return { records };
  },
  *labels(held, { tally, level }) {
    return labelsOf(yield* held.ledger(tally), level);
  },
  *copy(held, { tally, full }) {
    return isLedger(held.item(tally))
      ? yield* copyShown(yield* held.ledger(tally), full)
      : yield* copyTally(held, tally, full);
  },
  moved: (held, { with: older }) => answerMoved(held, older),
  movedRecords: answerMovedRecords,
  asked: (held, { tallies }) => asked(held, tallies),
  *countedRecords(held, { tally }) {
    const order = isLedger(held.item(tally))
      ? (yield* held.ledger(tally)).ledger.order
      : held.stand.base.order;
    return yield* countedRecords(held, order);
  },
  *file(held, { tally, what, full, dialect }) {
    if (!isLedger(held.item(tally)))
      return yield* what === 'shown'
        ? fileTally(held, tally, full, dialect)
        : fileRecords(held, held.stand.base.order, full, dialect);
    const ledger = yield* held.ledger(tally);
    return yield* what === 'shown'
      ? fileShown(ledger, full, dialect)
      : fileRecords(held, ledger.ledger.order, full, dialect);
  },
  facts: answerFacts,
  draft: answerDraft,
  other: answerOther,
  match: answerMatch,
  uses: answerUses,
  values: answerValues,
  *try({ stand, table }, { condition, at }) {
    yield undefined;
    const tried = {
      id: 'tried',
      on: true,
      condition: conditionWithListed(condition, stand.base.others),
    };
    const rungs: Ladder['rungs'] = [...stand.given.rungs.slice(0, at), tried];
    const setAside = { records: [], values: [], kept: [] };
    const { kept, removed, blank, unread } = applyLadder(table, { rungs, setAside }).rungs[
      rungs.length - 1
    ];
    return {
      kept,
      removed,
      blank,
      unread,
      says: describeCondition(condition, namesOf(table)),
    };
  },
  /** Every cell of a record in full, with what stood there before a correction. */
  *recordCells({ doc, table }, { record }) {
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
  },
};
