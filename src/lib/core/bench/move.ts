import { carryRecords } from '../read/carry';
import { numbersIn, renumbered } from '../scope/byNumber';
import type { Condition } from '../scope/condition';
import type { Table } from '../table/table';
import { kindOf } from '../tally/kinds';
import type { Bench } from './document';

/** A bench brought to another reading, and what could not come along. */
export interface BroughtBench {
  readonly doc: Bench;
  /** Records set aside, corrected or named in a condition that the other reading does not have. */
  readonly lost: number;
}

/** Brings a bench to another reading: records named by number are found again by what they hold. */
export function moveBench(doc: Bench, from: Table, to: Table, reading: number): BroughtBench {
  const { setAside } = doc.ladder;
  const named = new Set([
    ...setAside.records,
    ...setAside.kept,
    ...doc.corrections.map((c) => c.record),
  ]);
  withConditions(doc, (condition) => {
    for (const number of numbersIn(condition)) named.add(number);
    return condition;
  });
  const carried = carryRecords(from, to, [...named]);
  const follow = (numbers: readonly number[]): number[] =>
    numbers.flatMap((n) => carried.get(n) ?? []).sort((a, b) => a - b);
  const moved = withConditions(doc, (condition) => renumbered(condition, follow));
  return {
    doc: {
      ...moved,
      reading,
      ladder: {
        ...moved.ladder,
        setAside: { ...setAside, records: follow(setAside.records), kept: follow(setAside.kept) },
      },
      corrections: doc.corrections.flatMap((c) => {
        const record = carried.get(c.record);
        return record === undefined ? [] : [{ ...c, record }];
      }),
    },
    lost: named.size - carried.size,
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
