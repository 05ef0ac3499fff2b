import { inStretches, type Task } from '../task/task';

/**
 * A set of record positions 0..n-1, 32 to a word. Bits past n in the last word are always 0, so
 * words can be joined and counted without a look at the length.
 */
export type Bitset = Uint32Array;

export const wordsFor = (length: number): number => (length + 31) >>> 5;

export const emptyBitset = (length: number): Bitset => new Uint32Array(wordsFor(length));

export function fullBitset(length: number): Bitset {
  const set = new Uint32Array(wordsFor(length)).fill(0xffffffff);
  const spare = length & 31;
  if (spare) set[set.length - 1] = (1 << spare) - 1;
  return set;
}

export const has = (set: Bitset, at: number): boolean => ((set[at >>> 5] >>> (at & 31)) & 1) === 1;

export function add(set: Bitset, at: number): void {
  set[at >>> 5] |= 1 << (at & 31);
}

export function remove(set: Bitset, at: number): void {
  set[at >>> 5] &= ~(1 << (at & 31));
}

/** Number of bits in one word (Warren, Hacker's Delight, 5-1). */
export function popcount(word: number): number {
  let v = word - ((word >>> 1) & 0x55555555);
  v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
  return (((v + (v >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

export function count(set: Bitset): number {
  let n = 0;
  for (let w = 0; w < set.length; w++) n += popcount(set[w]);
  return n;
}

export function and(a: Bitset, b: Bitset): Bitset {
  const out = new Uint32Array(a.length);
  for (let w = 0; w < a.length; w++) out[w] = a[w] & b[w];
  return out;
}

export function or(a: Bitset, b: Bitset): Bitset {
  const out = new Uint32Array(a.length);
  for (let w = 0; w < a.length; w++) out[w] = a[w] | b[w];
  return out;
}

/** What is in `a` and not in `b`. */
export function without(a: Bitset, b: Bitset): Bitset {
  const out = new Uint32Array(a.length);
  for (let w = 0; w < a.length; w++) out[w] = a[w] & ~b[w];
  return out;
}

export function bitsetOf(length: number, members: ArrayLike<number>): Bitset {
  const set = emptyBitset(length);
  for (let k = 0; k < members.length; k++) add(set, members[k]);
  return set;
}

/** The same with pauses: for what may be most of a list. */
export function* bitsetInSteps(length: number, members: ArrayLike<number>): Task<Bitset> {
  const set = emptyBitset(length);
  yield* inStretches(members.length, (from, to) => {
    for (let k = from; k < to; k++) set[members[k] >>> 5] |= 1 << (members[k] & 31);
  });
  return set;
}

/** The members in rising order. */
export function members(set: Bitset): Int32Array {
  const out = new Int32Array(count(set));
  collect(set, out, 0, 0, set.length);
  return out;
}

/** Puts the members of a stretch of words into `out` from place `n` on. Gives the next free place. */
export function collect(set: Bitset, out: Int32Array, n: number, from: number, to: number): number {
  for (let w = from; w < to; w++) {
    let word = set[w];
    if (word === 0xffffffff) {
      for (let at = w << 5, end = at + 32; at < end; at++) out[n++] = at;
      continue;
    }
    while (word) {
      const low = word & -word;
      out[n++] = (w << 5) + (31 - Math.clz32(low));
      word ^= low;
    }
  }
  return n;
}
