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
 * @param follow where each record went, where that is known (records were added, or taken out): what was
 *   decided about those that stayed stays, and `decided` is of those that came
 */
export function* moveBench(
  doc: Bench,
  from: Table,
  to: Table,
  reading: number,
  decided: readonly number[] | null = null,
  follow: FollowRecord | null = null,
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
  const ofList = follow
    ? followed(follow, corrected)
    : yield* carryRecords(from, to, [...corrected]);
  let ofCounted = new Map<number, number>();
  if (follow && doc.reshape.length === 0) ofCounted = followed(follow, counted);
  else if (counted.size)
    ofCounted = yield* carryRecords(yield* reshaped(from, doc), yield* reshaped(to, doc), [
      ...counted,
    ]);
  const carried = (numbers: readonly number[]): number[] =>
    numbers.flatMap((n) => ofCounted.get(n) ?? []).sort((a, b) => a - b);
  const moved = withConditions(doc, (condition) => renumbered(condition, carried));
  const lostOf = (named: ReadonlySet<number>, found: ReadonlyMap<number, number>): number[] =>
    [...named].filter((n) => !found.has(n));
  const lost = [lostOf(corrected, ofList), lostOf(counted, ofCounted)];
  let there = decided ?? [];
  if (follow && doc.reshape.length === 0) there = [...followed(follow, totals).values(), ...there];
  else if ((follow || !decided) && totals.size) there = yield* totalsOf(to);
  const brought: Bench = {
    ...moved,
    reading,
    ladder: {
      ...moved.ladder,
      setAside: { ...setAside, records: carried(setAside.records), kept: carried(setAside.kept) },
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

/** The number that a record has in the other reading; null where it is not there. */
export type FollowRecord = (number: number) => number | null;

function followed(follow: FollowRecord, numbers: Iterable<number>): Map<number, number> {
  const out = new Map<number, number>();
  for (const number of numbers) {
    const to = follow(number);
    if (to !== null) out.set(number, to);
  }
  return out;
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
