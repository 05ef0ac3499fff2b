import { carryRecords } from '../read/carry';
import type { Table } from '../table/table';
import type { Bench } from './document';

/** A bench brought to another reading, and what could not come along. */
export interface BroughtBench {
  readonly doc: Bench;
  /** Records set aside or corrected that the other reading does not have. */
  readonly lost: number;
}

/** Brings a bench to another reading: records named by number are found again by what they hold. */
export function moveBench(doc: Bench, from: Table, to: Table, reading: number): BroughtBench {
  const { setAside } = doc.ladder;
  const named = [
    ...new Set([...setAside.records, ...setAside.kept, ...doc.corrections.map((c) => c.record)]),
  ];
  const carried = carryRecords(from, to, named);
  const follow = (records: readonly number[]): number[] =>
    records.flatMap((i) => carried.get(i) ?? []).sort((a, b) => a - b);
  return {
    doc: {
      ...doc,
      reading,
      ladder: {
        ...doc.ladder,
        setAside: { ...setAside, records: follow(setAside.records), kept: follow(setAside.kept) },
      },
      corrections: doc.corrections.flatMap((c) => {
        const record = carried.get(c.record);
        return record === undefined ? [] : [{ ...c, record }];
      }),
    },
    lost: named.length - carried.size,
  };
}
