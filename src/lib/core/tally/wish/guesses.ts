import { comparisonGuess } from '../kinds/comparison/guess';
import { conditionalGuess } from '../kinds/conditional/guess';
import { contributionsGuess } from '../kinds/contributions/guess';
import { crosstabGuess } from '../kinds/crosstab/guess';
import { forecastGuess } from '../kinds/forecast/guess';
import { frequencyGuess } from '../kinds/frequency/guess';
import { growthGuess } from '../kinds/growth/guess';
import type { ColumnType } from '../../table/column';
import type { FirstGuess, Guess, ListFacts } from './guess';
import { ledgerGuess } from '../kinds/ledger/guess';
import { lineGuess } from '../kinds/line/guess';
import { nestedGuess } from '../kinds/nested/guess';
import { percentileGuess } from '../kinds/percentile/guess';
import { periodsGuess } from '../kinds/periods/guess';
import { rankingGuess } from '../kinds/ranking/guess';
import { reconciliationGuess } from '../kinds/reconciliation/guess';
import type { Tally } from '../spec/specs';
import { spreadGuess } from '../kinds/spread/guess';
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
  reconciliation: reconciliationGuess,
};

/** The kinds, in the order in which the work is done. */
const KINDS = Object.keys(GUESSES) as Tally['kind'][];

/** How a tally of any kind begins. */
export const guessOf = (kind: Tally['kind']): FirstGuess<Tally> => GUESSES[kind];

/** The words that name a question, each with the kinds it names. */
export const WORDS_OF_KINDS: ReadonlyMap<string, readonly Tally['kind'][]> = new Map(
  KINDS.flatMap((kind) => GUESSES[kind].asks).map((words) => [
    words,
    KINDS.filter((kind) => GUESSES[kind].asks.includes(words)),
  ]),
);

/** The kinds that a column of a type can begin, with the words a panel offers each by. */
export const asksOfColumn = (type: ColumnType): { kind: Tally['kind']; words: string }[] =>
  KINDS.flatMap((kind) => {
    const { ofColumn } = guessOf(kind);
    return ofColumn?.types.includes(type) ? [{ kind, words: ofColumn.words }] : [];
  });

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
  KINDS.map((kind) => {
    const first = guessOf(kind);
    const { question, found } = first;
    const meant = first.meant?.(wish) ?? false;
    return { kind, question, found, meant, guess: first.guess(facts, wish) };
  });
