import { mergedSort } from '../sorting/mergedSort';
import { inStretches, STRIDE, type Task } from '../task/task';
import { compareText } from './collate';
import { calendarPlaces } from './calendarNames';
import { collationKey } from './collationKey';

/** Keys made between two pauses. */
const KEYS = STRIDE >> 4;

/** Places by language rules, kept as long as the dictionary itself. */
const kept = new WeakMap<readonly string[], Int32Array>();

/**
 * The place of each dictionary entry in order. Entries that the hand-given order lists come first,
 * in that order; the rest follow by language rules, months and weekdays by the calendar.
 */
export function* textRanks(
  dictionary: readonly string[],
  hand: readonly string[] = [],
): Task<Int32Array> {
  const ranks = kept.get(dictionary) ?? (yield* inOrder(dictionary));
  kept.set(dictionary, ranks);
  if (hand.length === 0) return ranks;
  const given = new Map(hand.map((text, at) => [text, at]));
  const place = (code: number): number => given.get(dictionary[code]) ?? hand.length;
  const order = yield* mergedSort(
    [...dictionary.keys()],
    (a, b) => place(a) - place(b) || ranks[a] - ranks[b],
  );
  return placesOf(order);
}

function* inOrder(dictionary: readonly string[]): Task<Int32Array> {
  const ranks = yield* byLanguage(dictionary);
  const calendar = calendarPlaces(dictionary);
  if (!calendar) return ranks;
  return placesOf(
    [...dictionary.keys()].sort((a, b) => calendar[a] - calendar[b] || ranks[a] - ranks[b]),
  );
}

function* byLanguage(dictionary: readonly string[]): Task<Int32Array> {
  const keys: (string | null)[] = [];
  yield* inStretches(
    dictionary.length,
    (from, to) => {
      for (let code = from; code < to; code++) keys.push(collationKey(dictionary[code]));
    },
    KEYS,
  );
  const heads = yield* headsOf(keys);
  const order = yield* mergedSort([...dictionary.keys()], (a, b) => {
    const ahead = heads[a] - heads[b];
    if (ahead === ahead && ahead !== 0) return ahead;
    const x = keys[a];
    const y = keys[b];
    if (x === null || y === null || x === y) return compareText(dictionary[a], dictionary[b]);
    return x < y ? -1 : 1;
  });
  return placesOf(order);
}

/** Codes of a key lie under 2^11; four of them are a number that is exact. */
const [CODES, BITS] = [4, 11];

/** The first codes behind what all keys begin with, as numbers that rise as the keys do; NaN for what has no key. */
function* headsOf(keys: readonly (string | null)[]): Task<Float64Array> {
  const [first = ''] = keys;
  let shared = (first ?? '').length;
  yield* inStretches(keys.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const key = keys[k];
      if (key === null) continue;
      let same = 0;
      while (same < shared && key.charCodeAt(same) === first?.charCodeAt(same)) same++;
      shared = same;
    }
  });
  const heads = new Float64Array(keys.length);
  yield* inStretches(keys.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const key = keys[k];
      let head = 0;
      // Nothing stands before every code: a key that ends comes before one that goes on.
      for (let n = 0; n < CODES; n++)
        head =
          head * 2 ** BITS +
          (key !== null && shared + n < key.length ? key.charCodeAt(shared + n) : 0);
      heads[k] = key === null ? NaN : head;
    }
  });
  return heads;
}

function placesOf(order: readonly number[]): Int32Array {
  const ranks = new Int32Array(order.length);
  order.forEach((code, rank) => (ranks[code] = rank));
  return ranks;
}
