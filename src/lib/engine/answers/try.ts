import type { Ladder } from '../../core/scope/condition';
import { describeCondition } from '../../core/scope/describe';
import { applyLadder } from '../../core/scope/ladder';
import { conditionWithListed } from '../../core/scope/listed';
import type { Steps } from '../../core/steps/steps';
import { namesOf } from '../../core/table/table';
import type { Held } from '../held';
import type { ArgsOf, ReplyOf } from '../protocol';

/** What a condition would keep and remove at its place in the ladder. */
export function* answerTry(
  { stand, table }: Held,
  { condition, at }: ArgsOf<'try'>,
): Steps<ReplyOf<'try'>> {
  yield undefined;
  const tried = {
    id: 'tried',
    on: true,
    condition: conditionWithListed(condition, stand.base.others),
  };
  const rungs: Ladder['rungs'] = [...stand.given.rungs.slice(0, at), tried];
  const setAside = { records: [], values: [], kept: [] };
  const applied = yield* applyLadder(table, { rungs, setAside });
  const { kept, removed, blank, unread } = applied.rungs[rungs.length - 1];
  return { kept, removed, blank, unread, words: describeCondition(condition, namesOf(table)) };
}
