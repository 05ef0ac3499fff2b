import { conditionalSentence } from './conditional/sentence';
import { contributionsSentence } from './contributions/sentence';
import { crosstabSentence } from './crosstab/sentence';
import { forecastSentence } from './forecast/sentence';
import { frequencySentence } from './frequency/sentence';
import { growthSentence } from './growth/sentence';
import type { Names } from './kind';
import { lineSentence } from './line/sentence';
import { ledgerSentence } from './ledger/sentence';
import { percentileSentence } from './percentile/sentence';
import { periodsSentence } from './periods/sentence';
import { rankingSentence } from './ranking/sentence';
import type { Part } from './sentence';
import type { SimpleSpecs, SimpleTally } from './simpleSpecs';
import { spreadSentence } from './spread/sentence';

/** A kind's sentence. */
export type Sentences<Specs> = {
  readonly [K in keyof Specs]: (spec: Specs[K], names: Names, listName: string) => Part<Specs[K]>[];
};

/** A spec with its sentence out of a registry; the compiler sees that they belong together. */
export function say<Specs, K extends keyof Specs>(
  sentences: Sentences<Specs>,
  kind: K,
  spec: Specs[K],
  names: Names,
  listName: string,
): Part<Specs[K]>[] {
  const its: (spec: Specs[K], names: Names, listName: string) => Part<Specs[K]>[] = sentences[kind];
  return its(spec, names, listName);
}

/** Sentences without arithmetic: what a page draws. One line a kind. */
export const SIMPLE_SENTENCES: Sentences<SimpleSpecs> = {
  ledger: ledgerSentence,
  crosstab: crosstabSentence,
  conditional: conditionalSentence,
  frequency: frequencySentence,
  spread: spreadSentence,
  percentile: percentileSentence,
  ranking: rankingSentence,
  periods: periodsSentence,
  growth: growthSentence,
  forecast: forecastSentence,
  line: lineSentence,
  contributions: contributionsSentence,
};

export const simpleSentence = (
  tally: SimpleTally,
  names: Names,
  listName: string,
): Part<SimpleTally>[] =>
  say<SimpleSpecs, SimpleTally['kind']>(SIMPLE_SENTENCES, tally.kind, tally, names, listName);
