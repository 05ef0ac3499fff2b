import { MEASURES, type MeasureKind } from '$lib/core/measure/measure';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { dayNumber } from '$lib/core/table/calendar';
import { finish } from '$lib/core/task/task';
import { WORDS_OF_KINDS, guessOf } from '$lib/core/tally/wish/guesses';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import { ListWords } from '$lib/core/wish/listWords';
import { offersFor } from '$lib/core/wish/offers';
import { MEASURE_PHRASES } from '$lib/core/wish/words/measureWords';
import { END_WORDS } from '$lib/core/wish/words/orderWords';
import { PERIOD_WORDS } from '$lib/core/wish/words/periodWords';
import { SMALL_WORDS } from '$lib/core/wish/words/smallWords';
import {
  COMPARED,
  COMPARED_BEHIND,
  NOT_WORDS,
  ONLY_WORDS,
  TEXT_TESTS,
} from '$lib/core/wish/words/testWords';

/** A few sailings, for the examples. */
const sailings: Table = {
  length: 4,
  columns: [
    textColumn('Route', ['Nessness', 'Holm', 'Nessness', null]),
    textColumn('Vessel', ['Gannet', 'Fulmar', 'Gannet', 'Petrel']),
    textColumn('Weather', ['calm', 'gale', 'fog', 'fresh gale']),
    scalarColumn('Cancelled', 'yesno', [0, 1, 0, 0]),
    scalarColumn(
      'Sailed on',
      'date',
      [2023, 2024, 2024, 2025].map((year) => dayNumber(year, 6, 2)),
    ),
    scalarColumn('Boarded', 'number', [120, 0, 95, 101]),
    scalarColumn('Fares taken', 'number', [900.5, 0, 411, 702.25], { unit: '£' }),
    scalarColumn('Delay', 'number', [4, 0, 12, null], { unit: 'min' }),
  ],
};

/** Wishes by what they show; what each is read as is worked out when the document is made. */
const EXAMPLES: readonly (readonly [about: string, wishes: readonly string[]])[] = [
  [
    'Figures and groups',
    [
      'fares by route',
      'average delay per vessel',
      'how many sailings by weather',
      'number of different vessels by route',
      'fares per boarded by vessel',
      'fares minus boarded by vessel',
      'share of fares by route',
      'what is the total boarded',
    ],
  ],
  [
    'Which records count',
    [
      'fares by route without gale',
      'fares by vessel, nessness only',
      'fares by vessel in 2024',
      'sailings cancelled by route',
      'fares by vessel, (nessness or holm) and delay over 2',
      'boarded by route, vessel starts with g',
      'fares by vessel since june 2024',
      'boarded by vessel on mondays',
    ],
  ],
  [
    'Order, periods and other questions',
    [
      'top 3 vessels by fares',
      'worst 2 routes by boarded',
      'which vessel has the highest delay',
      'fares by month compared with last year',
      'running total of fares by month',
      'fares in 2023 and 2024 by route',
      'delay in bands 0, 5, 10',
      '90th percentile of delay by route',
      'growth of fares from 2023 to 2025',
      'fares next 6 months',
      'fares by route where delay at least 10',
    ],
  ],
  ['What is not understood', ['fares per pot by route', 'fares by vesel', 'fares in zzyzx']],
];

const code = (words: readonly string[]): string => words.map((word) => `\`${word}\``).join(', ');

function examples(): string {
  const words = new ListWords(sailings);
  const facts = {
    records: sailings.length,
    columns: finish(columnFacts(sailings)),
    lead: null,
    lists: [],
  };
  return EXAMPLES.map(([about, wishes]) => {
    const rows = wishes.map((wish) => {
      const [offer] = offersFor(wish, words, facts, 'Sailings', []);
      const narrowed = offer.narrowWords.length
        ? ` Narrowed to: ${offer.narrowWords.join('; ')}.`
        : '';
      const taken = offer.taken.map(
        ({ typed, takenFor }) => ` “${typed}” taken for “${takenFor}”.`,
      );
      const left = offer.left.length
        ? ` Not understood: ${offer.left.map((word) => `“${word}”`).join(', ')}.`
        : '';
      return `| \`${wish}\` | ${offer.sentence}${narrowed}${taken.join('')}${left} |`;
    });
    return `**${about}**\n\n| typed | comes to |\n| --- | --- |\n${rows.join('\n')}\n`;
  }).join('\n');
}

function measureRows(): string {
  const by = new Map<MeasureKind, string[]>();
  for (const [words, kind] of MEASURE_PHRASES)
    by.set(kind, [...(by.get(kind) ?? []), words.join(' ')]);
  return [...by].map(([kind, words]) => `| ${MEASURES[kind].words} | ${code(words)} |`).join('\n');
}

const questionRows = (): string =>
  [...new Set([...WORDS_OF_KINDS.values()].flat())]
    .map((kind) => `| ${guessOf(kind).question} | ${code(guessOf(kind).asks)} |`)
    .join('\n');

/** `docs/wishes.md`: the grammar of wishes with its words, and examples with what they come to. */
export const wishesDocument = (): string => `# Wishes

What can be typed into the finder (_Ctrl K_) and the questions (_New_), given to the command line
(\`tally reckon --wish "…" --data FILE\`) and over HTTP (\`POST /api/lists/{id}/wish\`). This document is made from the
grammar by \`npm run docs\`; a test holds that it is.

## How a wish is read

1. **Words** (\`core/wish/tokens.ts\`): a text in quotes is one word, brackets are words, commas part.
2. **Phrases** (\`core/wish/phrases\`): from each word on, all that it may begin: a column by its name or a word of it,
   a measure, a period, a condition, a time, a number with what it counts. What columns and values a list has is in
   \`core/wish/listWords.ts\`; the other words stand in \`core/wish/words\`, a file a class.
3. **Cover** (\`core/wish/cover.ts\`): the phrases that take most of the words, each word once; of several ways the one
   that fits best. Where the same words say two things (a value of two columns, a time where a list has two dates, a
   word of two column names), each is a reading, and offered.
4. **Reading** (\`core/wish/reading.ts\`): what each column is named for (figured, grouped by, within), with its measures.
5. **Offers** (\`core/wish/offers.ts\`): each kind of question begins a tally with it. A tally must hold each phrase
   (\`core/wish/unsaid.ts\`): words of those that it does not hold, and words that no phrase took, are _not understood_,
   and told as they were typed. Offers that leave fewest words come first.

Conditions (\`core/wish/conditions.ts\`) are read by descent, the same wherever they are typed:

\`\`\`
any   = all { "or" all }
all   = one { ["and" | "but"] one }
one   = [ "not" ] ( "(" any ")" | column test | value | time )
\`\`\`

_Not_ a value leaves records without a value out as well, and the step says how many. What stands behind “where” is
asked figure by figure, beside the others, and narrows nothing. A word that is near one of the list is taken for it
where more is understood then, and it is said. Words that only narrow begin no tally, and are a step of What counts.

## Examples

Of a list of sailings with Route, Vessel, Weather, Cancelled, Sailed on, Boarded, Fares taken and Delay.

${examples()}
## Words

| measure | words |
| --- | --- |
${measureRows()}

| question | words that name it |
| --- | --- |
${questionRows()}

| | words |
| --- | --- |
| not | ${code([...NOT_WORDS])}, \`but not\`, \`all but\` |
| only | ${code([...ONLY_WORDS])} |
| compare | ${code([...COMPARED, ...COMPARED_BEHIND].map(([words]) => words.join(' ')))}, \`between\` |
| in a text | ${code(TEXT_TESTS.map(([words]) => words.join(' ')))} |
| periods | ${code([...PERIOD_WORDS.keys()])} |
| order | ${code([...END_WORDS.keys()])} |
| small words | ${code([...SMALL_WORDS])} |
`;
