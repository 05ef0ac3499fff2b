import type { KeptBands } from '../../arrange/bands';
import { MONTHS } from '../../table/calendar';
import { PeriodName } from '../series/periodNamed';

/** Numbers, bands and spans of time in the words of a wish. */

/** `bands 0, 1, 5 and 10`: the edges, rising, each once. */
export function edgesIn(text: string): number[] {
  const [, said = ''] = /\bbands?:?\s((?:[\s,;]|and|-?\d+(?:\.\d+)?)+)/i.exec(text) ?? [];
  const edges = numbersIn(said, /(-?\d+(?:\.\d+)?)/g);
  return [...new Set(edges)].sort((a, b) => a - b).slice(0, 100);
}

/** `in delays`, `in the bands of delays`, `in “Delays”`: a kept band table, the longest name that fits, and what else was said. */
export function tableIn(
  text: string,
  kept: readonly KeptBands[],
): { table: KeptBands | null; rest: string } {
  const longestFirst = [...kept].sort((a, b) => b.name.length - a.name.length);
  for (const table of longestFirst) {
    const called = table.name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
    const said = new RegExp(
      `\\bin\\s+(?:the\\s+)?(?:bands\\s+(?:of\\s+)?)?["“]?${called}["”]?(?:\\s+bands)?(?![^\\s,;])`,
      'iu',
    );
    if (said.test(text)) return { table, rest: text.replace(said, ' ') };
  }
  return { table: null, rest: text };
}

/** `from April`, `years that start in April`: the month's number; 0 where none is named, or a span of months is. */
export function startIn(text: string): number {
  const [, month = ''] =
    /\b(?:from|starts?|starting)\s+(?:in\s+|with\s+)?([a-z]+)\b(?!\s+(?:to|until|\d))/i.exec(
      text,
    ) ?? [];
  return 1 + MONTHS.findIndex((name) => name.toLowerCase() === month.toLowerCase());
}

/** Two periods with `to` or `and` between them. */
export function endsIn(words: readonly string[]): { from: string; to: string } | null {
  for (let k = 1; k + 1 < words.length; k++) {
    if (words[k] !== 'to' && words[k] !== 'and') continue;
    const [from, to] = [words[k - 1], words[k + 1]].map((w) =>
      PeriodName.safeParse(w.toUpperCase()),
    );
    if (from.success && to.success) return { from: from.data, to: to.data };
  }
  return null;
}

/** The whole number that stands after a word: `first 3`. */
export function countAfter(words: readonly string[], name: RegExp): number | undefined {
  const at = words.findIndex((word, k) => name.test(word) && /^[1-9]\d{0,6}$/.test(words[k + 1]));
  return at < 0 ? undefined : Number(words[at + 1]);
}

export const numbersIn = (text: string, pattern: RegExp): number[] =>
  [...text.toLowerCase().matchAll(pattern)].map(([, digits]) => Number(digits));
