import type { Part, Phrase, Phrases } from '../phrase';
import { says } from '../phrase';
import { numberOf } from '../tokens';
import { COUNTED_ENDS, END_WORDS } from '../words/orderWords';

const LARGEST = 1_000_000;
const WORDS = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];

/** A whole number from 1 on, in digits or in a word; NaN for any other. */
const wholeOf = (word: string | undefined): number => {
  if (word === undefined) return NaN;
  return /^[1-9]\d{0,6}$/.test(word) ? Number(word) : WORDS.indexOf(word) + 1 || NaN;
};

/** `first 3`, `the bottom five`, `largest first`, `next 6`. */
export const countPhrases: Phrases = ({ tokens }, at) => {
  const { word, quoted } = tokens[at];
  if (quoted) return [];
  const out: Phrase[] = [];
  const put = (length: number, part: Part, fit: number): void =>
    void out.push({ from: at, to: at + length, part, fit });
  const end = END_WORDS.get(word);
  const count = Math.min(LARGEST, wholeOf(tokens[at + 1]?.word));
  if (end && COUNTED_ENDS.has(word) && count > 0) put(2, { is: 'count', of: end, count }, 6);
  if (word === 'next' && count > 0) put(2, { is: 'ahead', count: Math.min(500, count) }, 6);
  if (end && (says(tokens, at + 1, ['first']) || says(tokens, at + 1, ['last'])))
    put(2, { is: 'order', of: tokens[at + 1].word === 'first' ? end : other(end) }, 6);
  if (says(tokens, at, ['worst'])) put(1, { is: 'order', of: 'lowest' }, 3);
  if (end && /^(?:most|least|fewest|top|bottom)$/.test(word)) put(1, { is: 'order', of: end }, 2);
  return out;
};

const other = (end: 'highest' | 'lowest'): 'highest' | 'lowest' =>
  end === 'highest' ? 'lowest' : 'highest';

/** `90 %`, `where 20`, `bands 0, 1, 5 and 10`, a band table by the name it is kept under. */
export const bandPhrases: Phrases = ({ tokens, kept }, at) => {
  const out: Phrase[] = [];
  const { word } = tokens[at];
  const put = (to: number, part: Part, fit: number): void =>
    void out.push({ from: at, to, part, fit });
  const tight = /^(\d+(?:\.\d+)?)\s?%$/.exec(word);
  const percent = tight ? Number(tight[1]) : tokens[at + 1]?.word === '%' ? Number(word) : NaN;
  if (percent >= 0 && percent <= 100)
    put(at + (tight ? 1 : 2), { is: 'percent', value: percent }, 6);
  const stands = word === 'where' ? numberOf(tokens[at + 1]) : NaN;
  if (!Number.isNaN(stands)) put(at + 2, { is: 'stands', value: stands }, 6);
  const from = word === 'in' ? at + 1 : at;
  if (/^bands?$/.test(tokens[from]?.word ?? '')) {
    const { edges, to } = edgesAt(tokens, from + 1);
    const width = tokens[from + 1]?.word === 'of' ? numberOf(tokens[from + 2]) : NaN;
    if (width > 0) put(from + 3, { is: 'width', width }, 7);
    else if (edges.length > 0) put(to, { is: 'edges', edges }, 7);
    else put(from + 1, { is: 'bands' }, from > at ? 5 : 4);
  }
  if (word === 'in') {
    // The longest name first: “Delays (storms)” is not “Delays”.
    const names = kept.map((table) => ({ table, name: table.name.toLowerCase() }));
    for (const { table, name } of names.sort((a, b) => b.name.length - a.name.length)) {
      const to = tableNamed(tokens, at + 1, name);
      if (to !== null) {
        put(to, { is: 'table', table }, 9);
        break;
      }
    }
  }
  return out;
};

/** Numbers from a place on, rising, each once. */
function edgesAt(
  tokens: Parameters<Phrases>[0]['tokens'],
  at: number,
): { edges: number[]; to: number } {
  const edges = new Set<number>();
  let to = at;
  for (let k = at; k < tokens.length; k++) {
    const value = numberOf(tokens[k]);
    if (!Number.isNaN(value)) {
      edges.add(value);
      to = k + 1;
    } else if (tokens[k].word !== 'and') break;
  }
  return { edges: [...edges].sort((a, b) => a - b).slice(0, 100), to };
}

/** Where the name of a band table ends that is said as `delays`, `the bands of delays`, `delays bands`. */
function tableNamed(
  tokens: Parameters<Phrases>[0]['tokens'],
  at: number,
  name: string,
): number | null {
  let from = at;
  for (const word of ['the', 'bands', 'of']) if (tokens[from]?.word === word) from++;
  const words = name.split(/[\s,;]+|(?=[()])|(?<=[()])/).filter(Boolean);
  const fits = words.every((word, k) => tokens[from + k]?.word === word.replace(/[.:?!]+$/, ''));
  const whole = tokens[from]?.word === name ? 1 : fits ? words.length : 0;
  if (whole === 0) return null;
  const to = from + whole;
  return tokens[to]?.word === 'bands' ? to + 1 : to;
}
