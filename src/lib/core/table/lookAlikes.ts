import { compareText } from './collate';
import type { TextColumn } from './column';

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

/** Case, spaces, dashes, quotes and marks without width, which nobody sees the difference of. */
const plainForm = (text: string): string =>
  text
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
  const latin = [...text].map((letter) => CONFUSABLE.get(letter) ?? letter).join('');
  return latin === text ? null : plainForm(latin);
}

const classes = new WeakMap<readonly string[], Int32Array>();

/**
 * For each text of a dictionary, the place of the first that looks the same: equal but for case,
 * spaces within and around, dashes and quotes, or letters of another script that are drawn alike.
 * Kept as long as the dictionary.
 * @example firstAlike(['Ness', ' ness', 'Neѕs']) // [0, 0, 0], the last with a Cyrillic ѕ
 */
export function firstAlike(dictionary: readonly string[]): Int32Array {
  const known = classes.get(dictionary);
  if (known) return known;
  const first = Int32Array.from(dictionary, (_, k) => k);
  const root = (k: number): number => {
    let at = k;
    while (first[at] !== at) at = first[at];
    return at;
  };
  const byForm = new Map<string, number>();
  dictionary.forEach((text, k) => {
    for (const form of [plainForm(text), latinForm(text)]) {
      if (form === null) continue;
      const other = byForm.get(form);
      if (other === undefined) byForm.set(form, k);
      else {
        const [a, b] = [root(other), root(k)];
        first[Math.max(a, b)] = Math.min(a, b);
      }
    }
  });
  for (let k = 0; k < first.length; k++) first[k] = first[first[k]];
  classes.set(dictionary, first);
  return first;
}

/** The values of a column as choices, commonest first. @param counts records by dictionary code */
export function choicesOf({ dictionary }: TextColumn, counts: Int32Array): Choice[] {
  const first = firstAlike(dictionary);
  const found = new Map<number, { text: string; count: number }[]>();
  dictionary.forEach((text, code) => {
    if (counts[code] === 0) return;
    const spelling = { text, count: counts[code] };
    const others = found.get(first[code]);
    if (others) others.push(spelling);
    else found.set(first[code], [spelling]);
  });
  const commonest = (a: { text: string; count: number }, b: typeof a): number =>
    b.count - a.count || compareText(a.text, b.text);
  return Array.from(found.values(), (spellings): Choice => {
    spellings.sort(commonest);
    const count = spellings.reduce((sum, spelling) => sum + spelling.count, 0);
    return { text: spellings[0].text, count, spellings };
  }).sort(commonest);
}
