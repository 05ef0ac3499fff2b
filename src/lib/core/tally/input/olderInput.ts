import { renumbered } from '../../selection/byNumber';
import { applyLadder } from '../../selection/ladder';
import type { Table } from '../../table/table';
import type { TallyInput } from './input';
import { TallyMemo } from '../kind/memo';
import type { Task } from '../../task/task';
import { orderRead } from '../../table/recordOrder';

/**
 * The same ladder on the older reading.
 * @param follow the numbers there of records that the ladder names by theirs here; without it such
 * records are not set aside there
 * @param name what the base calls the older reading
 */
export function* olderBase(
  input: TallyInput,
  older: Table,
  follow: (numbers: readonly number[]) => number[] = () => [],
  name = '',
): Task<TallyInput> {
  const { rungs, setAside } = input.ladder;
  const totals = input.totalsAside?.get(name) ?? [];
  const ladder = {
    rungs: rungs.map((rung) => ({ ...rung, condition: renumbered(rung.condition, follow) })),
    setAside: {
      ...setAside,
      records: [...new Set([...follow(setAside.records), ...totals])].sort((a, b) => a - b),
      kept: follow(setAside.kept),
    },
  };
  const { all, narrowed, counted: kept } = yield* applyLadder(older, ladder);
  return {
    ...input,
    table: older,
    all,
    narrowed,
    counted: kept,
    order: orderRead(older.length),
    sort: [],
    memo: new TallyMemo(),
  };
}
