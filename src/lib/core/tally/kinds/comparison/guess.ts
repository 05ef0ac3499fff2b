import { common, type FirstGuess } from '../../wish/guess';
import { totalsFor } from '../ledger/guess';
import type { ComparisonSpec } from './spec';

export const comparisonGuess: FirstGuess<ComparisonSpec> = {
  question: 'What changed since last time?',
  found: 'comparison compare moved changed reading difference',
  asks: ['comparison', 'compare', 'what changed since'],
  guess(facts, wish) {
    const older = facts.lists.find((name) => name.startsWith('the reading'));
    if (!older)
      return { needs: 'It needs an earlier reading of this list: refresh the data first.' };
    return {
      tally: {
        ...common,
        kind: 'comparison',
        with: older,
        match: [...(facts.recordKeys ?? [])],
        // A list without groups moves as a whole.
        tally: totalsFor(facts, wish),
        unmoved: false,
      },
    };
  },
};
