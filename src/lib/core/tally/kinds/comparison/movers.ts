import { has, members, type Bitset } from '../../../table/bitset';
import type { Matched } from './match';

/** Records of one reading that may have moved a figure, and which of them are in it. */
export interface Side {
  /** By their numbers, in their order. */
  readonly records: Int32Array;
  /** The place of each record of the reading among them; −1 for those that are not. */
  readonly places: Int32Array;
  /** Those of the figure, by their places. */
  readonly within: Bitset;
}

/** A record of a figure of either reading: its place in each, −1 where it is not there. */
export interface Mover {
  readonly now: number;
  readonly then: number;
  /** Whether it is in the newer figure, and in the older one; one of them at least. */
  readonly isIn: boolean;
  readonly wasIn: boolean;
}

/**
 * The records of either figure, each once, but for those that are in both and did not change: there may be
 * a million of these, and no object is made of them.
 * @param changed 1 for each record of the newer reading with another value somewhere
 */
export function moversOf(
  now: Side,
  then: Side,
  { older, newer }: Matched,
  changed: Uint8Array,
): Mover[] {
  const out: Mover[] = [];
  for (const k of members(now.within)) {
    const at = now.records[k];
    const old = older[at];
    const wasIn = old >= 0 && isWithin(then, old);
    if (!wasIn || changed[at] === 1) out.push({ now: at, then: old, isIn: true, wasIn });
  }
  for (const k of members(then.within)) {
    const at = then.records[k];
    const next = newer[at];
    if (next < 0 || !isWithin(now, next))
      out.push({ now: next, then: at, isIn: false, wasIn: true });
  }
  return out;
}

const isWithin = ({ places, within }: Side, record: number): boolean =>
  places[record] >= 0 && has(within, places[record]);

/** Came with the newer reading, went with the older, or is in both. */
export type How = 'came' | 'went' | 'changed';

export const howOf = ({ now, then }: Mover): How =>
  then < 0 ? 'came' : now < 0 ? 'went' : 'changed';
