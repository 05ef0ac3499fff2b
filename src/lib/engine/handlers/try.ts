import type { Ladder } from '../../core/selection/condition';
import { describeCondition } from '../../core/selection/describe';
import { applyLadder } from '../../core/selection/ladder';
import { conditionWithListed } from '../../core/selection/listed';
import type { Task } from '../../core/task/task';
import { namesOf } from '../../core/table/table';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';

/** What a condition would keep and remove at its place in the ladder. */
export function* answerTry(
  { resolved, table }: Session,
  { condition, at, instead }: ArgsOf<'try'>,
): Task<ReplyOf<'try'>> {
  yield undefined;
  const tried = {
    id: 'tried',
    on: true,
    condition: conditionWithListed(condition, resolved.input.others),
  };
  const above = resolved.given.rungs.slice(0, at).filter(({ id }) => id !== instead);
  const rungs: Ladder['rungs'] = [...above, tried];
  const setAside = { records: [], values: [], kept: [] };
  const applied = yield* applyLadder(table, { rungs, setAside });
  const { kept, removed, blank, unread } = applied.rungs[rungs.length - 1];
  return { kept, removed, blank, unread, words: describeCondition(condition, namesOf(table)) };
}
