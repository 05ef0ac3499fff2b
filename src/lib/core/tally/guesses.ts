import { comparisonGuess } from './comparison/guess';
import { conditionalGuess } from './conditional/guess';
import { contributionsGuess } from './contributions/guess';
import { crosstabGuess } from './crosstab/guess';
import { forecastGuess } from './forecast/guess';
import { frequencyGuess } from './frequency/guess';
import { growthGuess } from './growth/guess';
import type { FirstGuess, Guess, ListFacts } from './guess';
import { ledgerGuess } from './ledger/guess';
import { lineGuess } from './line/guess';
import { nestedGuess } from './nested/guess';
import { percentileGuess } from './percentile/guess';
import { periodsGuess } from './periods/guess';
import { rankingGuess } from './ranking/guess';
import type { Tally } from './specs';
import { spreadGuess } from './spread/guess';
import type { Wish } from './wish';

type Guesses = { readonly [K in Tally['kind']]: FirstGuess<Extract<Tally, { kind: K }>> };

/** How each kind begins, in the order in which the work is done. */
const GUESSES: Guesses = {
  ledger: ledgerGuess,
  crosstab: crosstabGuess,
  conditional: conditionalGuess,
  frequency: frequencyGuess,
  spread: spreadGuess,
  percentile: percentileGuess,
  ranking: rankingGuess,
  periods: periodsGuess,
  growth: growthGuess,
  forecast: forecastGuess,
  line: lineGuess,
  contributions: contributionsGuess,
  nested: nestedGuess,
  comparison: comparisonGuess,
};

/** A question, and the tally that begins to answer it or what the list lacks for it. */
export interface Question {
  readonly kind: Tally['kind'];
  readonly question: string;
  readonly found: string;
  /** Whether the wish can hardly mean another question. */
  readonly meant: boolean;
  readonly guess: Guess<Tally>;
}

/**
 * What can be asked of a list, in the order in which the work is done.
 * @example questionsOf(facts, { measure: 'median', column: 'delay', by: ['vessel'] })
 */
export const questionsOf = (facts: ListFacts, wish: Wish = {}): Question[] =>
  (Object.keys(GUESSES) as Tally['kind'][]).map((kind) => {
    const first: FirstGuess<Tally> = GUESSES[kind];
    const { question, found } = first;
    const meant = first.meant?.(wish) ?? false;
    return { kind, question, found, meant, guess: first.guess(facts, wish) };
  });
