import { EngineError, Trouble } from '../core/errors';
import { benchWithIds } from '../core/bench/benchWithIds';
import { stand, StandCache } from '../core/ask/stand';
import { finish, type Steps } from '../core/steps/steps';
import type { Table } from '../core/table/table';
import { answerCounts, leadSums } from './answers/counts';
import type { Handler, Handlers, Stands } from './handlers/handler';
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
 * const engine = openEngine({ name: 'Sailings', table, recipe, others: new Map() });
 * const { token } = engine.now('stand', { doc });
 * const { lines } = engine.now('ledger', { token, tally: doc.open });
 */
export class Engine implements Stands {
  readonly #cache = new StandCache();
  readonly #sums = new LeadSums();
  readonly #answers = new AnswerCache();
  readonly #held: Held[] = [];
  #list: OpenList;
  #next = 1;

  #handlers: Partial<Handlers>;

  /** @param handlers what it can answer; a worker begins with those that show a bench */
  constructor(list: OpenList, handlers: Partial<Handlers>) {
    this.#list = list;
    this.#handlers = handlers;
  }

  /** Other lists by the names that benches give them; what rested on the old ones is forgotten. */
  setOthers(others: ReadonlyMap<string, Table>): void {
    if (others !== this.#list.others) this.#list = { ...this.#list, others };
  }

  /** The answer in one go. @throws EngineError, and what the request itself throws */
  now<K extends Do>(kind: K, args: ArgsOf<K>): ReplyOf<K> {
    return finish(this.answer(kind, args));
  }

  /** Whether a request can be answered with the handlers at hand. */
  answers(kind: Do): boolean {
    return this.#handlers[kind] !== undefined;
  }

  /** Takes in handlers that were not at hand before. */
  learn(handlers: Partial<Handlers>): void {
    this.#handlers = { ...this.#handlers, ...handlers };
  }

  /** The answer with pauses, for whoever wants to stop between them. */
  answer<K extends Do>(kind: K, args: ArgsOf<K>): Steps<ReplyOf<K>> {
    const handler: Handler<K> | undefined = this.#handlers[kind];
    if (!handler) throw new Trouble('notOpen', `“${kind}” cannot be answered yet.`);
    return handler(this, args);
  }

  *stand({ doc: asked }: ArgsOf<'stand'>): Steps<ReplyOf<'stand'>> {
    const on = yield* stand(this.#list, asked, this.#cache);
    const doc = benchWithIds(asked, on.base.table.columns);
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
