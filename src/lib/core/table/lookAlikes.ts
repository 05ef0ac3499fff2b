import { compareText } from './collate';
import type { TextColumn } from './column';
import { inStretches, STRIDE, type Task } from '../task/task';

/** Values that look the same: one choice in menus. */
export interface Choice {
  /** The commonest way it is written. */
  readonly text: string;
  /** Records of all its spellings. */
  readonly count: number;
  /** Every way it is written, the commonest first. */
  readonly spellings: { text: string; count: number }[];
}

/** A value with one spelling. */
export const asChoice = (text: string, count: number): Choice => ({
  text,
  count,
  spellings: [{ text, count }],
});

/** Letters of other scripts that are drawn as Latin ones (a selection of Unicode's UTS 39, confusables). */
const CONFUSABLE = new Map(
  [
    ['АВЕЅІЈКМНОРСТХУаеорсухѕіј', 'ABESIJKMHOPCTXYaeopcyxsij'],
    ['ΑΒΕΖΗΙΚΜΝΟΡΤΥΧο', 'ABEZHIKMNOPTYXo'],
  ].flatMap(([from, to]) => [...from].map((letter, k): [string, string] => [letter, to[k]])),
);

/** Texts of letters, digits and plain signs, single spaces within: only their case can differ unseen. */
const PLAIN = /^[!-_a-~]+(?: [!-_a-~]+)*$/;

/** Case, spaces, dashes, quotes and marks without width, which nobody sees the difference of. */
const plainForm = (text: string): string =>
  PLAIN.test(text)
    ? text.toLowerCase()
    : text
        .normalize('NFKC')
        .replace(/[\u00ad\u200b-\u200d\u2060\ufeff]/g, '')
        .replace(/[\u2010-\u2015\u2212]/g, '-')
        .replace(/[\u2018\u2019\u201b\u2032\u02bc`\u00b4]/g, "'")
        .replace(/[\u201c-\u201f\u2033]/g, '"')
        .trim()
        .replace(/\s+/g, ' ')
        .toLowerCase();

/** The same with look-alike letters as Latin ones; null where the text has none. */
function latinForm(text: string): string | null {
  if (PLAIN.test(text)) return null;
  const latin = [...text].map((letter) => CONFUSABLE.get(letter) ?? letter).join('');
  return latin === text ? null : plainForm(latin);
}

/** Texts that are looked at between two pauses: normalizing is slow work. */
const TEXTS = STRIDE >> 4;

const classes = new WeakMap<readonly string[], Int32Array>();

/**
 * For each text of a dictionary, the place of the first that looks the same: equal but for case,
 * spaces within and around, dashes and quotes, or letters of another script that are drawn alike.
 * Kept as long as the dictionary.
 * @example finish(firstAlike(['Ness', ' ness', 'Neѕs'])) // [0, 0, 0], the last with a Cyrillic ѕ
 */
export function* firstAlike(dictionary: readonly string[]): Task<Int32Array> {
  const known = classes.get(dictionary);
  if (known) return known;
  const first = new Int32Array(dictionary.length);
  yield* inStretches(first.length, (from, to) => {
    for (let k = from; k < to; k++) first[k] = k;
  });
  const root = (k: number): number => {
    let at = k;
    while (first[at] !== at) at = first[at];
    return at;
  };
  const byForm = new Map<string, number>();
  const noteForms = (from: number, to: number): void => {
    for (let k = from; k < to; k++)
      for (const form of [plainForm(dictionary[k]), latinForm(dictionary[k])]) {
        if (form === null) continue;
        const other = byForm.get(form);
        if (other === undefined) byForm.set(form, k);
        else {
          const [a, b] = [root(other), root(k)];
          first[Math.max(a, b)] = Math.min(a, b);
        }
      }
  };
  yield* inStretches(first.length, noteForms, TEXTS);
  yield* inStretches(first.length, (from, to) => {
    // What a text points at stands before it, and points at its root already.
    for (let k = from; k < to; k++) first[k] = first[first[k]];
  });
  classes.set(dictionary, first);
  return first;
}

/** The first so many choices of a column, and how many more there are. */
export interface Choices {
  readonly choices: Choice[];
  readonly more: number;
}

/** Which choices are wanted. */
export interface Wanted {
  readonly most: number;
  /** Whether a spelling is looked for; all unless given. */
  readonly fits?: (text: string) => boolean;
  /** Each text by itself, without a look at which are alike. */
  readonly apart?: boolean;
}

const commonest = (
  a: { readonly text: string; readonly count: number },
  b: { readonly text: string; readonly count: number },
): number => b.count - a.count || compareText(a.text, b.text);

/**
 * The commonest values of a column as choices, commonest first, equal ones by their text. Of equally
 * common ones at the edge those that stand first in the list are taken. Only what is given back is made:
 * a column may have a million texts.
 * @param counts records by dictionary code
 */
export function* choicesOf(
  { dictionary }: Pick<TextColumn, 'dictionary'>,
  counts: Int32Array,
  { most, fits, apart }: Wanted,
): Task<Choices> {
  const first = apart ? null : yield* firstAlike(dictionary);
  const rootOf = (code: number): number => (first ? first[code] : code);
  const totals = new Int32Array(counts.length);
  const wanted = fits ? new Uint8Array(counts.length) : null;
  const total = (from: number, to: number): void => {
    for (let code = from; code < to; code++) {
      if (counts[code] === 0) continue;
      totals[rootOf(code)] += counts[code];
      if (wanted && fits?.(dictionary[code])) wanted[rootOf(code)] = 1;
    }
  };
  yield* inStretches(counts.length, total, fits ? TEXTS : undefined);
  if (wanted)
    yield* inStretches(totals.length, (from, to) => {
      for (let k = from; k < to; k++) if (wanted[k] === 0) totals[k] = 0;
    });
  const { roots, more } = yield* mostOf(totals, most);
  const spellings = new Map(roots.map((root) => [root, [] as Choice['spellings']]));
  const spell = (from: number, to: number): void => {
    for (let code = from; code < to; code++)
      if (counts[code] > 0)
        spellings.get(rootOf(code))?.push({ text: dictionary[code], count: counts[code] });
  };
  yield* inStretches(counts.length, spell, STRIDE);
  const choices = Array.from(spellings, ([root, all]): Choice => {
    all.sort(commonest);
    return { text: all[0].text, count: totals[root], spellings: all };
  });
  return { choices: choices.sort(commonest), more };
}

/** The places of the highest totals, in the order they stand, and how many others are over 0. */
function* mostOf(totals: Int32Array, most: number): Task<{ roots: number[]; more: number }> {
  // Totals of a million records are of some 1,400 sizes at the most: 1 + 2 + 3 + … comes to more.
  const times = new Map<number, number>();
  yield* inStretches(totals.length, (from, to) => {
    for (let k = from; k < to; k++)
      if (totals[k] > 0) times.set(totals[k], (times.get(totals[k]) ?? 0) + 1);
  });
  let present = 0;
  for (const n of times.values()) present += n;
  /** The lowest total that is taken, how many there are of it and over it. */
  let edge = Infinity;
  let at = 0;
  let over = 0;
  for (const [total, n] of [...times].sort(([a], [b]) => b - a)) {
    if (over + at >= most) break;
    over += at;
    edge = total;
    at = n;
  }
  let room = most - over;
  const roots: number[] = [];
  yield* inStretches(totals.length, (from, to) => {
    for (let k = from; k < to; k++)
      if (totals[k] > edge || (totals[k] === edge && room-- > 0)) roots.push(k);
  });
  return { roots, more: present - roots.length };
}
