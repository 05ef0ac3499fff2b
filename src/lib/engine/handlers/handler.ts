import type { Steps } from '../../core/steps/steps';
import type { Held } from '../held';
import type { ArgsOf, Do, ReplyOf } from '../protocol';

/** What handlers ask of the engine: to stand a bench, and for a stand by its token. */
export interface Stands {
  stand(args: ArgsOf<'stand'>): Steps<ReplyOf<'stand'>>;
  /** @throws EngineError where newer stands took its place */
  held(token: number): Held;
}

/** Answers one request. */
export type Handler<K extends Do> = (stands: Stands, args: ArgsOf<K>) => Steps<ReplyOf<K>>;

/** What each request is answered by. */
export type Handlers = { readonly [K in Do]: Handler<K> };

/** Answers a request of a stand that is held. */
export const onHeld =
  <K extends Exclude<Do, 'stand'>>(
    answer: (held: Held, args: ArgsOf<K>) => Steps<ReplyOf<K>>,
  ): Handler<K> =>
  (stands, args) =>
    answer(stands.held(args.token), args);
