import type { Condition, Leaf, Test } from '../selection/condition';
import type { Column } from '../table/column';
import type { Wish } from '../tally/wish/wish';
import { coverOf } from './cover';
import { columnPhrases, recordPhrases } from './phrases/columns';
import { bandPhrases, countPhrases } from './phrases/counts';
import { betweenPhrases, measurePhrases } from './phrases/measures';
import { narrowPhrases, spanPhrases, wherePhrases } from './phrases/narrowing';
import {
  againstPhrases,
  fixedPhrases,
  loosePhrases,
  periodPhrases,
  yearStartPhrases,
} from './phrases/questions';
import { partsOf, type Part, type Phrase, type Phrases, type Typed } from './phrase';
import { placesOf, withSubject } from './placed';
import { wishFrom } from './wishFrom';

/** What a wish says, word by word. */
export interface Reading {
  readonly wish: Wish;
  /** What narrows to the records that were asked of. */
  readonly narrow: readonly Condition[];
  /** Its phrases; the words between them were not understood. */
  readonly phrases: readonly Phrase[];
  /** Whether anything is asked, besides which records count; their number, where only they are named. */
  readonly asks: boolean;
  readonly counts: boolean;
}

/** All that some words can be read as. */
const ALL: readonly Phrases[] = [
  columnPhrases,
  recordPhrases,
  measurePhrases,
  betweenPhrases,
  countPhrases,
  bandPhrases,
  fixedPhrases,
  periodPhrases,
  againstPhrases,
  yearStartPhrases,
  narrowPhrases,
  wherePhrases,
  spanPhrases,
  loosePhrases,
];

/** Readings beside the best one: more are no choice. */
const MOST_CHOICES = 3;

/**
 * What was typed, read by one grammar: the phrases that use most of the words, then each of them read otherwise where the
 * same words say something else as well (a value of two columns, a time of a list with two dates).
 */
export function readingsOf(typed: Typed): Reading[] {
  const { tokens } = typed;
  const phrases = coverOf(
    tokens.length,
    tokens.map((_, at) => ALL.flatMap((of) => of(typed, at))),
  );
  const columns = typed.words.table.columns;
  const choices = phrases.flatMap((phrase, k) =>
    (phrase.others ?? []).map((part) => phrases.with(k, { ...phrase, part })),
  );
  return [phrases, ...choices.slice(0, MOST_CHOICES)].map((of) => readingOf(of, columns));
}

function readingOf(phrases: readonly Phrase[], columns: readonly Column[]): Reading {
  const parts = phrases.map(({ part }) => part);
  const { placed: named, loose, perRecord } = placesOf(phrases, columns);
  const narrow = partsOf(parts, 'narrow').flatMap(({ condition }) => rungsOf(condition));
  const beside = partsOf(parts, 'beside');
  narrow.push(...beside.map(({ condition }) => condition));
  const placed = withSubject(named, parts, narrow, columns);
  const wish = wishFrom(parts, placed, loose, perRecord);
  const asks = parts.some(({ is }) => !NOTHING_ASKED.has(is));
  return {
    wish,
    narrow: valuesTogether(narrow),
    phrases,
    asks,
    counts: partsOf(parts, 'records').length > 0,
  };
}

/** Parts that ask for no figure. */
const NOTHING_ASKED: ReadonlySet<Part['is']> = new Set([
  'narrow',
  'small',
  'records',
  'role',
  'side',
  'which',
]);

/** Values of one column that are named here and there are any of them, not all at once. */
function valuesTogether(narrow: readonly Condition[]): Condition[] {
  const out: Condition[] = [];
  for (const condition of narrow) {
    const at = out.findIndex(
      (own) => isOneOf(own) && isOneOf(condition) && own.column === condition.column,
    );
    const [own, next] = [out[at] as Condition | undefined, condition];
    if (own && isOneOf(own) && isOneOf(next))
      out[at] = {
        ...own,
        test: { ...own.test, values: [...new Set([...own.test.values, ...next.test.values])] },
      };
    else out.push(condition);
  }
  return out;
}

type OneOf = Leaf & { readonly test: Extract<Test, { test: 'is' }> };

const isOneOf = (condition: Condition): condition is OneOf =>
  condition.kind === 'leaf' && condition.test.test === 'is' && !condition.not;

/** Each condition that must hold is a step of its own. */
const rungsOf = (condition: Condition): Condition[] =>
  condition.kind === 'all' && !condition.not ? condition.parts.flatMap(rungsOf) : [condition];
