import {
  common,
  dateFor,
  keysFor,
  measureFor,
  NEEDS,
  periodFor,
  type FirstGuess,
} from '../../wish/guess';
import type { ContributionsSpec } from './spec';

export const contributionsGuess: FirstGuess<ContributionsSpec> = {
  question: 'What moved it?',
  found: 'what moved it contributions gave change steps why rise fall',
  asks: [
    'what moved',
    'moved',
    'contributions',
    'contribution',
    'what drove',
    'change',
    'changed',
    'why',
    'rise',
    'rose',
    'fall',
    'fell',
  ],
  guess(facts, wish) {
    const date = dateFor(facts, wish);
    if (!date) return { needs: NEEDS.date };
    const [key] = keysFor(facts, wish).filter((k) => k.column !== date.id);
    if (!key) return { needs: NEEDS.group };
    const measure = measureFor(facts, wish.column === date.id ? {} : wish);
    return {
      tally: {
        ...common,
        kind: 'contributions',
        measure: ['sum', 'mean', 'records'].includes(measure.kind)
          ? measure
          : measureFor(facts, { column: wish.column }),
        by: [key],
        between: {
          of: 'periods',
          column: date.id,
          period: wish.period ?? periodFor(date),
          ...(wish.from && wish.to && { from: wish.from, to: wish.to }),
        },
        order: 'size',
        ...(wish.first && { top: wish.first }),
      },
    };
  },
};
