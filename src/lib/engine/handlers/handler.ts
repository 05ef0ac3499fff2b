import type { Task } from '../../core/task/task';
import type { Session } from '../session';
import type { ArgsOf, Do, ReplyOf } from '../protocol';

/** What handlers ask of the engine: to resolve a bench, and for a session by its token. */
export interface Sessions {
  resolve(args: ArgsOf<'resolve'>): Task<ReplyOf<'resolve'>>;
  /** @throws EngineError where newer sessions took its place */
  session(token: number): Session;
}

/** Answers one request. */
export type Handler<K extends Do> = (sessions: Sessions, args: ArgsOf<K>) => Task<ReplyOf<K>>;

/** What each request is answered by. */
export type Handlers = { readonly [K in Do]: Handler<K> };

/** Answers a request of a session that is kept. */
export const onSession =
  <K extends Exclude<Do, 'resolve'>>(
    answer: (session: Session, args: ArgsOf<K>) => Task<ReplyOf<K>>,
  ): Handler<K> =>
  (sessions, args) =>
    answer(sessions.session(args.token), args);
