import {
  common,
  keyOf,
  keysFor,
  measuresFor,
  NEEDS,
  spreadFor,
  type ColumnFact,
  type FirstGuess,
} from '../../wish/guess';
import type { Wish } from '../../wish/wish';
import type { FrequencySpec } from './spec';

/** The band table that was named, or bands by the edges that were, out to the lowest and the highest value. */
function bandsAsked(
  column: ColumnFact,
  { edges, table }: Wish,
): Pick<FrequencySpec['key'], 'bands'> {
  if (column.type !== 'number') return {};
  if (table) return { bands: { by: 'table', ...table } };
  if (!edges) return {};
  const all = [...edges, column.least, column.most].sort((a, b) => a - b);
  const rising = [...new Set(all)];
  return rising.length < 2 ? {} : { bands: { by: 'edges', edges: rising } };
}

export const frequencyGuess: FirstGuess<FrequencySpec> = {
  question: 'How do the values fall?',
  found: 'frequency distribution bands bins histogram often occurs',
  ofColumn: { words: 'how it falls', types: ['text', 'number', 'date', 'datetime', 'yesno'] },
  answers: ['often'],
  measures: () => ['records'],
  meant: (wish) => wish.often === true || wish.edges !== undefined || wish.table !== undefined,
  guess(facts, wish) {
    const wished =
      facts.columns.find((c) => c.id === wish.column) ??
      facts.columns.find((c) => c.id === wish.by?.[0]);
    const column = wished ?? spreadFor(facts, wish);
    const key = column ? keyOf(column, wish.period) : keysFor(facts, wish)[0];
    if (!key) return { needs: NEEDS.group };
    const often = column?.type === 'text' || column?.type === 'yesno';
    return {
      tally: {
        ...common,
        kind: 'frequency',
        key: often
          ? { ...key, order: { by: 'count', descending: true } }
          : { ...key, ...(column && bandsAsked(column, wish)) },
        // What else was named stands beside the counts.
        measures: measuresFor(facts, wish).filter(
          (measure) =>
            wish.measures !== undefined &&
            measure.column !== undefined &&
            measure.column !== column?.id,
        ),
        few: 10,
      },
    };
  },
};
