import { compareText } from './collate';
import type { TextColumn } from './column';
import { STRIDE, type Steps } from '../steps/steps';

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

const classes = new WeakMap<readonly string[], Int32Array>();

/**
 * For each text of a dictionary, the place of the first that looks the same: equal but for case,
 * spaces within and around, dashes and quotes, or letters of another script that are drawn alike.
 * Kept as long as the dictionary.
 * @example finish(firstAlike(['Ness', ' ness', 'Neѕs'])) // [0, 0, 0], the last with a Cyrillic ѕ
 */
export function* firstAlike(dictionary: readonly string[]): Steps<Int32Array> {
  const known = classes.get(dictionary);
  if (known) return known;
  const first = Int32Array.from(dictionary, (_, k) => k);
  const root = (k: number): number => {
    let at = k;
    while (first[at] !== at) at = first[at];
    return at;
  };
  const byForm = new Map<string, number>();
  for (let k = 0; k < first.length; k++) {
    // Normalizing is slow work: a pause sooner than elsewhere.
    if (k % (STRIDE >> 4) === 0) yield undefined;
    for (const form of [plainForm(dictionary[k]), latinForm(dictionary[k])]) {
      if (form === null) continue;
      const other = byForm.get(form);
      if (other === undefined) byForm.set(form, k);
      else {
        const [a, b] = [root(other), root(k)];
        first[Math.max(a, b)] = Math.min(a, b);
      }
    }
  }
  // What a text points at stands before it, and points at its root already.
  for (let k = 0; k < first.length; k++) first[k] = first[first[k]];
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
): Steps<Choices> {
  const first = apart ? null : yield* firstAlike(dictionary);
  const rootOf = (code: number): number => (first ? first[code] : code);
  const totals = new Int32Array(counts.length);
  const wanted = fits ? new Uint8Array(counts.length) : null;
  for (let code = 0; code < counts.length; code++) {
    if (code % STRIDE === 0) yield undefined;
    if (counts[code] === 0) continue;
    totals[rootOf(code)] += counts[code];
    if (wanted && fits?.(dictionary[code])) wanted[rootOf(code)] = 1;
  }
  if (wanted) for (let k = 0; k < totals.length; k++) if (wanted[k] === 0) totals[k] = 0;
  yield undefined;
  const { roots, more } = mostOf(totals, most);
  yield undefined;
  const spellings = new Map(roots.map((root) => [root, [] as Choice['spellings']]));
  for (let code = 0; code < counts.length; code++)
    if (counts[code] > 0)
      spellings.get(rootOf(code))?.push({ text: dictionary[code], count: counts[code] });
  const choices = Array.from(spellings, ([root, all]): Choice => {
    all.sort(commonest);
    return { text: all[0].text, count: totals[root], spellings: all };
  });
  return { choices: choices.sort(commonest), more };
}

/** The places of the highest totals, in the order they stand, and how many others are over 0. */
function mostOf(totals: Int32Array, most: number): { roots: number[]; more: number } {
  const sorted = totals.slice().sort();
  const edge = most < 1 ? Infinity : Math.max(1, sorted[Math.max(0, sorted.length - most)] ?? 1);
  let above = 0;
  let present = 0;
  for (const total of totals) {
    if (total > 0) present++;
    if (total > edge) above++;
  }
  let room = most - above;
  const roots: number[] = [];
  totals.forEach((total, k) => {
    if (total > edge || (total === edge && room-- > 0)) roots.push(k);
  });
  return { roots, more: present - roots.length };
}
