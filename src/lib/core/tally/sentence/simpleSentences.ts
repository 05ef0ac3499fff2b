import { conditionalSentence } from '../kinds/conditional/sentence';
import { contributionsSentence } from '../kinds/contributions/sentence';
import { crosstabSentence } from '../kinds/crosstab/sentence';
import { forecastSentence } from '../kinds/forecast/sentence';
import { frequencySentence } from '../kinds/frequency/sentence';
import { growthSentence } from '../kinds/growth/sentence';
import type { Names } from '../kind/kind';
import { lineSentence } from '../kinds/line/sentence';
import { ledgerSentence } from '../kinds/ledger/sentence';
import { percentileSentence } from '../kinds/percentile/sentence';
import { periodsSentence } from '../kinds/periods/sentence';
import { rankingSentence } from '../kinds/ranking/sentence';
import type { Part } from './sentence';
import type { SimpleSpecs, SimpleTally } from '../spec/simpleSpecs';
import { spreadSentence } from '../kinds/spread/sentence';

/** A kind's sentence. */
export type Sentences<Specs> = {
  readonly [K in keyof Specs]: (spec: Specs[K], names: Names, listName: string) => Part<Specs[K]>[];
};

/** A spec with its sentence out of a registry; the compiler sees that they belong together. */
export function sentenceByKind<Specs, K extends keyof Specs>(
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
  sentenceByKind<SimpleSpecs, SimpleTally['kind']>(
    SIMPLE_SENTENCES,
    tally.kind,
    tally,
    names,
    listName,
  );
