import { EngineError, Trouble } from '../core/errors';
import { benchWithIds } from '../core/bench/benchWithIds';
import { resolve, ResolveCache } from '../core/ask/resolve';
import { finish, type Task } from '../core/task/task';
import type { Table } from '../core/table/table';
import { answerCounts, leadSums } from './handlers/counts';
import type { Handler, Handlers, Sessions } from './handlers/handler';
import { AnswerCache, Session, LeadSums, type OpenList } from './session';
import type { ArgsOf, Do, ReplyOf } from './protocol';

/** How many sessions are kept: the present one, and the one whose figures may still be on the page. */
const MOST_SESSIONS = 2;

/**
 * A list in memory that answers requests. The same code runs in the browser's worker, in the
 * server's thread and in tests. A bench is resolved once; everything else is asked by the token of that session,
 * so that a late answer never comes to be beside newer figures.
 *
 * @example
 * const engine = openEngine({ name: 'Sailings', table, recipe, others: new Map() });
 * const { token } = engine.now('resolve', { doc });
 * const { lines } = engine.now('ledger', { token, tally: doc.open });
 */
export class Engine implements Sessions {
  readonly #cache = new ResolveCache();
  readonly #sums = new LeadSums();
  readonly #answers = new AnswerCache();
  readonly #sessions: Session[] = [];
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
  answer<K extends Do>(kind: K, args: ArgsOf<K>): Task<ReplyOf<K>> {
    const handler: Handler<K> | undefined = this.#handlers[kind];
    if (!handler) throw new Trouble('notOpen', `“${kind}” cannot be answered yet.`);
    return handler(this, args);
  }

  *resolve({ doc: asked }: ArgsOf<'resolve'>): Task<ReplyOf<'resolve'>> {
    const on = yield* resolve(this.#list, asked, this.#cache);
    const doc = benchWithIds(asked, on.input.table.columns);
    const lead = yield* leadSums(on, doc, this.#sums);
    const session = new Session(
      this.#next++,
      doc,
      on,
      lead,
      this.#list,
      this.#answers.of(on.input),
    );
    this.#sessions.push(session);
    if (this.#sessions.length > MOST_SESSIONS) this.#sessions.shift();
    return answerCounts(session);
  }

  /** @throws EngineError where newer ones took its place */
  session(token: number): Session {
    const session = this.#sessions.find((h) => h.token === token);
    if (!session)
      throw new EngineError(
        'stale',
        'These figures were replaced by newer ones. Nothing was lost.',
      );
    return session;
  }
}
