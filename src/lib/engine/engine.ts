import { groupPath } from '../core/arrange/tree';
import type { Recipe } from '../core/read/recipe';
import { describeCondition } from '../core/scope/describe';
import { climb } from '../core/scope/ladder';
import { finish, type Steps } from '../core/steps/steps';
import { fullCell } from '../core/table/cell';
import { isText } from '../core/table/column';
import { columnOf, type Table } from '../core/table/table';
import { answerBehind, answerBehindRecords, answerCheck } from './answers/behind';
import { answerFacts, answerValues } from './answers/column';
import { distributionOf } from './answers/distribution';
import { copyShown, fileRecords, fileShown } from './answers/handOver';
import { answerLines, cellOf, correctedCells } from './answers/lines';
import { answerOverview } from './answers/overview';
import { behind } from '../core/tally/behind';
import { answerTally, tallyBase } from './answers/tally';
import { groupAt } from './answers/place';
import type { Request, ReplyOf, RequestOf } from './protocol';
import { Reckoner, type Reckoned } from './reckoning';

/** A request before any bench was reckoned. */
export class NothingReckoned extends Error {
  override name = 'NothingReckoned';
  constructor() {
    super('No bench has been reckoned yet.');
  }
}

const HEAD_BINS = 10;

/**
 * A list held in memory that answers requests. The same code runs in the browser's worker, in the
 * server's thread and in tests.
 *
 * @example
 * const engine = new Engine(table, recipe, 'Sailings');
 * const overview = engine.now({ do: 'reckon', doc });
 */
export class Engine {
  readonly #reckoner: Reckoner;
  #reckoned: Reckoned | null = null;

  constructor(
    table: Table,
    recipe: Recipe,
    readonly listName: string,
  ) {
    this.#reckoner = new Reckoner(table, recipe);
  }

  /** The answer in one go. */
  now<K extends Request['do']>(request: RequestOf<K>): ReplyOf<K> {
    return finish(this.answer(request)) as ReplyOf<K>;
  }

  /** The answer with pauses, for whoever wants to stop between them. */
  *answer(request: Request): Steps<ReplyOf<Request['do']>> {
    if (request.do === 'reckon') {
      this.#reckoned = yield* this.#reckoner.reckon(request.doc);
      return answerOverview(this.#reckoned, this.listName);
    }
    const r = this.#reckoned;
    if (!r) throw new NothingReckoned();
    const counted = this.#reckoner.membersOf(r.ladder.counted);
    switch (request.do) {
      case 'lines':
        return answerLines(r, request.from, request.count);
      case 'heads':
        return yield* this.#heads(r, counted);
      case 'facts':
        return answerFacts(r, request.column, counted);
      case 'values':
        return answerValues(
          r,
          request.column,
          request.search,
          request.limit,
          this.#reckoner.membersOf(r.ladder.all),
        );
      case 'try':
        return tryCondition(r, request);
      case 'behind':
        return answerBehind(r, request.place);
      case 'behindRecords':
        return answerBehindRecords(r, request.place, request.from, request.count);
      case 'check':
        return answerCheck(r, request.place, request.known);
      case 'locate': {
        if (request.place.at === 'foot') return { line: -1 };
        const { level, group } = groupAt(r, request.place.path);
        return { line: r.lines.lineOfGroup(level, group) };
      }
      case 'locateRecord':
        return { line: r.lines.lineOf(request.record) };
      case 'recordsOn':
        return { records: recordsOn(r, request) };
      case 'labels':
        return labelsOf(r, request.level);
      case 'copy':
        return copyShown(r, request.full, this.listName);
      case 'file':
        return request.what === 'shown'
          ? fileShown(r, request.full)
          : yield* fileRecords(r, request.full);
      case 'tally':
        return yield* answerTally(r, request.tally, this.listName);
      case 'tallyBehind': {
        const found = behind(tallyBase(r, this.listName), request.result, request.place);
        return { ...found, records: [...found.records] };
      }
      case 'recordCells':
        return recordCells(r, request.record);
    }
  }

  *#heads(r: Reckoned, counted: Int32Array): Steps<ReplyOf<'heads'>> {
    const out: ReplyOf<'heads'> = [];
    for (const slot of r.columns.slots) {
      out.push(
        slot.column && slot.cells
          ? distributionOf(columnOf(r.table, slot.column), counted, HEAD_BINS)
          : { kind: 'none' },
      );
      yield undefined;
    }
    return out;
  }
}

function tryCondition(r: Reckoned, { condition, at }: RequestOf<'try'>): ReplyOf<'try'> {
  const rungs = [...r.doc.ladder.rungs.slice(0, at), { id: 'tried', on: true, condition }];
  const result = climb(r.table, { rungs, setAside: { records: [], values: [], kept: [] } }).rungs[
    rungs.length - 1
  ];
  const { kept, removed, blank, unread } = result;
  return { kept, removed, blank, unread, says: describeCondition(condition, r.names) };
}

function recordsOn(r: Reckoned, { from, to }: RequestOf<'recordsOn'>): number[] {
  const out: number[] = [];
  for (let n = from; n <= Math.min(to, r.lines.length - 1); n++) {
    const line = r.lines.at(n);
    if (line.kind === 'record') out.push(line.record);
  }
  return out;
}

/** Labels of a level in the order shown, each once. */
function labelsOf(r: Reckoned, level: number): string[] {
  const groups = r.tree.levels[level];
  if (!groups) return [];
  return [...new Set(Array.from(r.shown.order[level], (g) => groupPath(r.tree, level, g)[level]))];
}

/** Every cell of a record in full, with what stood there before a correction. */
function recordCells(r: Reckoned, record: number): ReplyOf<'recordCells'> {
  const corrected = correctedCells(r);
  const was = new Map(
    r.doc.corrections.filter((c) => c.record === record).map((c) => [c.column, c.was]),
  );
  return r.table.columns.map((column) => ({
    column: column.id,
    name: column.name,
    text: isText(column) && column.codes[record] < 0 ? '' : fullCell(column, record),
    state: cellOf(r, column, record, corrected).k,
    was: was.get(column.id) ?? '',
  }));
}
