import { EngineError } from '../core/errors';
import { stand, StandCache } from '../core/ask/stand';
import { finish, type Steps } from '../core/steps/steps';
import type { Table } from '../core/table/table';
import { answerCounts, leadSums } from './answers/counts';
import { HANDLERS, type Handler } from './handlers';
import { AnswerCache, Held, LeadSums, type OpenList } from './held';
import type { ArgsOf, Do, ReplyOf } from './protocol';

/** How many stands are held: the present one, and the one whose figures may still be on the page. */
const MOST_HELD = 2;

/**
 * A list held in memory that answers requests. The same code runs in the browser's worker, in the
 * server's thread and in tests. A bench is stood once; everything else is asked of the stand's token,
 * so that a late answer can never stand beside newer figures.
 *
 * @example
 * const engine = new Engine({ name: 'Sailings', table, recipe, others: new Map() });
 * const { token } = engine.now('stand', { doc });
 * const { lines } = engine.now('ledger', { token, tally: doc.open });
 */
export class Engine {
  readonly #cache = new StandCache();
  readonly #sums = new LeadSums();
  readonly #answers = new AnswerCache();
  readonly #held: Held[] = [];
  #list: OpenList;
  #next = 1;

  constructor(list: OpenList) {
    this.#list = list;
  }

  /** Other lists by the names that benches give them; what rested on the old ones is forgotten. */
  setOthers(others: ReadonlyMap<string, Table>): void {
    this.#list = { ...this.#list, others };
  }

  /** The answer in one go. @throws EngineError, and what the request itself throws */
  now<K extends Do>(kind: K, args: ArgsOf<K>): ReplyOf<K> {
    return finish(this.answer(kind, args));
  }

  /** The answer with pauses, for whoever wants to stop between them. */
  answer<K extends Do>(kind: K, args: ArgsOf<K>): Steps<ReplyOf<K>> {
    const handler: (engine: Engine, args: ArgsOf<K>) => Steps<ReplyOf<K>> = ANSWERS[kind];
    return handler(this, args);
  }

  *stand({ doc }: ArgsOf<'stand'>): Steps<ReplyOf<'stand'>> {
    const on = yield* stand(this.#list, doc, this.#cache);
    const lead = yield* leadSums(on, doc, this.#sums);
    const held = new Held(this.#next++, doc, on, lead, this.#list, this.#answers.of(on.base));
    this.#held.push(held);
    if (this.#held.length > MOST_HELD) this.#held.shift();
    return answerCounts(held);
  }

  /** @throws EngineError where newer stands took its place */
  held(token: number): Held {
    const held = this.#held.find((h) => h.token === token);
    if (!held)
      throw new EngineError(
        'stale',
        'These figures were replaced by newer ones. Nothing was lost.',
      );
    return held;
  }
}

type Answers = { readonly [K in Do]: (engine: Engine, args: ArgsOf<K>) => Steps<ReplyOf<K>> };

/** A request of a stand, answered by its handler. */
const onHeld =
  <K extends Exclude<Do, 'stand'>>(handler: Handler<K>) =>
  (engine: Engine, args: ArgsOf<K> & { readonly token: number }): Steps<ReplyOf<K>> =>
    handler(engine.held(args.token), args);

const ANSWERS: Answers = {
  stand: (engine, args) => engine.stand(args),
  ledger: onHeld(HANDLERS.ledger),
  lines: onHeld(HANDLERS.lines),
  heads: onHeld(HANDLERS.heads),
  answer: onHeld(HANDLERS.answer),
  rows: onHeld(HANDLERS.rows),
  shape: onHeld(HANDLERS.shape),
  fact: onHeld(HANDLERS.fact),
  questions: onHeld(HANDLERS.questions),
  sketch: onHeld(HANDLERS.sketch),
  footing: onHeld(HANDLERS.footing),
  behind: onHeld(HANDLERS.behind),
  behindRecords: onHeld(HANDLERS.behindRecords),
  check: onHeld(HANDLERS.check),
  known: onHeld(HANDLERS.known),
  cited: onHeld(HANDLERS.cited),
  figureRecord: onHeld(HANDLERS.figureRecord),
  locate: onHeld(HANDLERS.locate),
  locateRecord: onHeld(HANDLERS.locateRecord),
  recordsOn: onHeld(HANDLERS.recordsOn),
  labels: onHeld(HANDLERS.labels),
  copy: onHeld(HANDLERS.copy),
  file: onHeld(HANDLERS.file),
  moved: onHeld(HANDLERS.moved),
  movedRecords: onHeld(HANDLERS.movedRecords),
  asked: onHeld(HANDLERS.asked),
  countedRecords: onHeld(HANDLERS.countedRecords),
  facts: onHeld(HANDLERS.facts),
  values: onHeld(HANDLERS.values),
  try: onHeld(HANDLERS.try),
  recordCells: onHeld(HANDLERS.recordCells),
  draft: onHeld(HANDLERS.draft),
  other: onHeld(HANDLERS.other),
  match: onHeld(HANDLERS.match),
  uses: onHeld(HANDLERS.uses),
};
