import { renumbered } from '../scope/byNumber';
import { applyLadder } from '../scope/ladder';
import type { Table } from '../table/table';
import type { Base } from './base';
import { TallyMemo } from './memo';
import type { Steps } from '../steps/steps';
import { orderRead } from '../table/recordOrder';

/**
 * The same ladder on the older reading.
 * @param follow the numbers there of records that the ladder names by theirs here; without it such
 * records are not set aside there
 * @param name what the base calls the older reading
 */
export function* olderBase(
  base: Base,
  older: Table,
  follow: (numbers: readonly number[]) => number[] = () => [],
  name = '',
): Steps<Base> {
  const { rungs, setAside } = base.ladder;
  const totals = base.totalsAside?.get(name) ?? [];
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
    ...base,
    table: older,
    all,
    narrowed,
    counted: kept,
    order: orderRead(older.length),
    sort: [],
    memo: new TallyMemo(),
  };
}
