import { common, dateFor, keyOf, keysFor, measuresFor, NEEDS, type FirstGuess } from '../guess';
import type { CrosstabSpec } from './spec';

export const crosstabGuess: FirstGuess<CrosstabSpec> = {
  question: 'How do two things meet?',
  found: 'cross-tab crosstab table by across rows columns margins share',
  guess(facts, wish) {
    const keys = keysFor(facts, wish);
    const date = dateFor(facts, wish);
    if (keys.length === 0) return { needs: NEEDS.group };
    const [down, second] = keys;
    const across =
      wish.by && wish.by.length > 1 ? second : date ? keyOf(date, wish.period) : second;
    if (!across || across.column === down.column)
      return { needs: 'It needs two columns to group by.' };
    return {
      tally: {
        ...common,
        kind: 'crosstab',
        down: [down],
        across: [across],
        measures: measuresFor(facts, wish),
        shares: [],
        count: false,
        few: 10,
      },
    };
  },
};
