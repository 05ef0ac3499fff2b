import { collator } from './collate';

/** Codes in a key: below them marks come before digits, above them what comes after. */
const NUMBER = 0x100;
const AFTER = 0x400;
/** Longer runs of digits are left to the collator. */
const LONGEST_RUN = 0x200;
const [ZERO, NINE] = [48, 57];
const [FIRST, LAST] = [32, 126];

interface Weights {
  /** By character code: its place among the others, letters of both cases as one; 0: none. */
  readonly primary: Uint16Array;
  /** By character code: 1 for what differs from the one before it by its case alone. */
  readonly cased: Uint8Array;
}

let known: Weights | null = null;

/** The places of single characters, asked of the collator itself. */
function weights(): Weights {
  if (known) return known;
  const letters = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
  const marks = Array.from({ length: LAST - FIRST + 1 }, (_, k) => String.fromCharCode(FIRST + k))
    .filter((mark) => !/\d/.test(mark))
    .sort(collator.compare);
  const primary = new Uint16Array(128);
  const cased = new Uint8Array(128);
  let place = 0;
  marks.forEach((mark, k) => {
    const code = mark.charCodeAt(0);
    const same = k > 0 && letters.compare(marks[k - 1], mark) === 0;
    if (!same) place++;
    cased[code] = same ? 1 : 0;
    primary[code] = collator.compare(mark, '5') < 0 ? place : AFTER + place;
  });
  return (known = { primary, cased });
}

/**
 * A text as one whose UTF-16 codes rise as the language rules have it, so that `<` says what the
 * collator says, ten times as fast (Unicode Collation Algorithm, UTS 10: primary weights of all
 * characters before those of case; runs of digits by their value). Null for what is not printable ASCII.
 *
 * @example
 * collationKey('Pier 9')! < collationKey('Pier 10')! // true
 */
export function collationKey(text: string): string | null {
  const { primary, cased } = weights();
  let key = '';
  let cases = '';
  /** Codes of the key since the last one with a case to tell. */
  let plain = 0;
  for (let i = 0; i < text.length;) {
    const code = text.charCodeAt(i);
    if (code < FIRST || code > LAST) return null;
    if (code >= ZERO && code <= NINE) {
      let first = i;
      while (i < text.length && text.charCodeAt(i) >= ZERO && text.charCodeAt(i) <= NINE) i++;
      while (first < i - 1 && text.charCodeAt(first) === ZERO) first++;
      if (i - first > LONGEST_RUN) return null;
      key += String.fromCharCode(NUMBER + i - first) + text.slice(first, i);
      plain += i - first;
      continue;
    }
    key += String.fromCharCode(primary[code]);
    if (cased[code]) {
      cases += `${'0'.repeat(plain)}1`;
      plain = 0;
    } else plain++;
    i++;
  }
  return cases === '' ? key : `${key}\0${cases}`;
}
