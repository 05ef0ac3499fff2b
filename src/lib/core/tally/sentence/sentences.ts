import { comparisonSentence } from '../kinds/comparison/sentence';
import type { Names } from '../kind/kind';
import { nestedSentence } from '../kinds/nested/sentence';
import { reconciliationSentence } from '../kinds/reconciliation/sentence';
import type { Part } from './sentence';
import { sentenceByKind, SIMPLE_SENTENCES, type Sentences } from './simpleSentences';
import type { Tally } from '../spec/specs';

type Specs = { [K in Tally['kind']]: Extract<Tally, { kind: K }> };

const SENTENCES: Sentences<Specs> = {
  ...SIMPLE_SENTENCES,
  nested: nestedSentence,
  comparison: comparisonSentence,
  reconciliation: reconciliationSentence,
};

/**
 * The sentence of any tally as parts, without its arithmetic.
 * @example plainSentence(sentenceOf(tally, names, 'Sailings'))
 */
export const sentenceOf = (tally: Tally, names: Names, listName: string): Part<Tally>[] =>
  sentenceByKind<Specs, Tally['kind']>(SENTENCES, tally.kind, tally, names, listName);
