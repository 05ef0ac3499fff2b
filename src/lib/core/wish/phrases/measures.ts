import type { Phrase, Phrases } from '../phrase';
import { says } from '../phrase';
import { MEASURE_PHRASES } from '../words/measureWords';
import { COMPARED } from '../words/testWords';

/** A measure by its words, with the “of” behind it; a percentile with its per cent. */
export const measurePhrases: Phrases = ({ tokens, words }, at) => {
  const percentile = percentileAt({ tokens }, at);
  if (percentile) return [percentile];
  const out: Phrase[] = [];
  for (const [said, kind] of MEASURE_PHRASES) {
    if (!says(tokens, at, said)) continue;
    let to = at + said.length;
    // “first 3” says how many, “over 10” is a condition, “per cent” of a number before it is no share.
    if ((kind === 'first' || kind === 'last') && /^[1-9]/.test(tokens[to]?.word ?? '')) continue;
    if (said.includes('%') && /^\d/.test(tokens[at - 1]?.word ?? '')) continue;
    if (kind === 'range' && COMPARED.some(([op]) => says(tokens, to, op))) continue;
    const of = says(tokens, to, ['of']);
    if (of) to++;
    if (of && says(tokens, to, ['the'])) to++;
    // “mean delay”, “mean of delay”: the measure, even where a column is called Mean.
    const named = tokens[to] && words.columnAt(tokens, to);
    const leads = of || (named !== null && named !== undefined && named.type === 'number');
    const part = { is: 'measure', kind } as const;
    // “count of delays” counts values, “how many vessels” distinct ones; records, where nothing is named so.
    const counted = kind === 'records' && named && !words.namesRecords(named.column);
    const meant = !counted ? null : named.type === 'text' ? 'distinct' : of ? 'values' : null;
    out.push({
      from: at,
      to,
      part: meant ? { is: 'measure', kind: meant } : part,
      fit: leads || meant ? 7 : 4,
      ...(meant && { others: [part] }),
    });
  }
  return out;
};

/** `90th percentile of`, `the 90 % percentile`: one measure with its per cent. */
function percentileAt(
  { tokens }: Pick<Parameters<Phrases>[0], 'tokens'>,
  at: number,
): Phrase | null {
  const [, digits] = /^(\d+(?:\.\d+)?)(?:st|nd|rd|th)$/.exec(tokens[at].word) ?? [];
  const percent = Number(digits);
  if (!(percent >= 0 && percent <= 100) || !/^percentiles?$/.test(tokens[at + 1]?.word ?? ''))
    return null;
  const to = at + (says(tokens, at + 2, ['of']) ? 3 : 2);
  return { from: at, to, part: { is: 'measure', kind: 'percentile', percent }, fit: 8 };
}

/** `fares / boarded`, `fares minus costs`: what stands between two columns. */
export const betweenPhrases: Phrases = ({ tokens }, at) => {
  const phrase = (said: readonly string[], op: 'ratio' | 'difference'): Phrase[] =>
    says(tokens, at, said)
      ? [{ from: at, to: at + said.length, part: { is: 'between', op }, fit: 5 }]
      : [];
  return [
    ...phrase(['/'], 'ratio'),
    ...phrase(['divided', 'by'], 'ratio'),
    ...phrase(['ratio', 'of'], 'ratio'),
    ...phrase(['ratio'], 'ratio'),
    ...phrase(['minus'], 'difference'),
    ...phrase(['less'], 'difference'),
    ...phrase(['difference', 'between'], 'difference'),
    ...phrase(['difference', 'of'], 'difference'),
  ];
};
