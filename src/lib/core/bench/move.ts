import type { Task } from '../task/task';
import { carryRecords } from '../read/carry';
import { numbersIn, renumbered } from '../selection/byNumber';
import type { Condition } from '../selection/condition';
import type { Table } from '../table/table';
import { kindOf } from '../tally/kind/kinds';
import type { Bench } from './document';
import { reshaped, totalsOf, totalsSetAside, withAside } from '../ask/totalsAside';

/** A bench brought to another reading, and what could not come along. */
export interface BroughtBench {
  readonly doc: Bench;
  /** Records set aside, corrected or named in a condition that the other reading does not have. */
  readonly lost: number;
}

/**
 * Brings a bench to another reading: records named by number are found again by what they hold.
 * Corrections name records of the list; what is set aside, and conditions, name those it is stacked
 * to, where it is. Totals inside the list are never the same at two readings: where the bench has set
 * them aside, those of the other reading are set aside there.
 * @param decided what was decided about totals at that reading: the records that are set aside for them, by
 *   their numbers in it; as before unless given
 */
export function* moveBench(
  doc: Bench,
  from: Table,
  to: Table,
  reading: number,
  decided: readonly number[] | null = null,
): Task<BroughtBench> {
  const { setAside } = doc.ladder;
  const totals = new Set(yield* totalsSetAside(doc, from));
  const corrected = new Set(doc.corrections.map((c) => c.record));
  const counted = new Set([...setAside.records, ...setAside.kept]);
  for (const number of totals) counted.delete(number);
  withConditions(doc, (condition) => {
    for (const number of numbersIn(condition)) counted.add(number);
    return condition;
  });
  const ofList = yield* carryRecords(from, to, [...corrected]);
  const ofCounted = counted.size
    ? yield* carryRecords(yield* reshaped(from, doc), yield* reshaped(to, doc), [...counted])
    : new Map<number, number>();
  const follow = (numbers: readonly number[]): number[] =>
    numbers.flatMap((n) => ofCounted.get(n) ?? []).sort((a, b) => a - b);
  const moved = withConditions(doc, (condition) => renumbered(condition, follow));
  const lostOf = (named: ReadonlySet<number>, found: ReadonlyMap<number, number>): number[] =>
    [...named].filter((n) => !found.has(n));
  const lost = [lostOf(corrected, ofList), lostOf(counted, ofCounted)];
  const there = decided ?? (totals.size ? yield* totalsOf(to) : []);
  const brought: Bench = {
    ...moved,
    reading,
    ladder: {
      ...moved.ladder,
      setAside: { ...setAside, records: follow(setAside.records), kept: follow(setAside.kept) },
    },
    corrections: doc.corrections.flatMap((c) => {
      const record = ofList.get(c.record);
      return record === undefined ? [] : [{ ...c, record }];
    }),
  };
  return {
    doc: yield* withAside(brought, to, there),
    // A record of the list that was both corrected and set aside is one.
    lost: doc.reshape.length ? lost.flat().length : new Set(lost.flat()).size,
  };
}

/** A bench with every condition of it put in another's place. */
function withConditions(doc: Bench, change: (condition: Condition) => Condition): Bench {
  const rungs = <T extends { readonly condition: Condition }>(all: readonly T[]): T[] =>
    all.map((rung) => ({ ...rung, condition: change(rung.condition) }));
  return {
    ...doc,
    ladder: { ...doc.ladder, rungs: rungs(doc.ladder.rungs) },
    scopes: doc.scopes.map((scope) => ({ ...scope, rungs: rungs(scope.rungs) })),
    tray: doc.tray.map((item) => ({
      ...item,
      tally: kindOf(item.tally).visit({ condition: change }, ''),
    })),
  };
}
