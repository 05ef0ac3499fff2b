import {
  common,
  fewIn,
  dateFor,
  groupsOf,
  keyOf,
  keysFor,
  measuresFor,
  NEEDS,
  type FirstGuess,
} from '../../wish/guess';
import { MOST_ACROSS, type CrosstabSpec } from './spec';

export const crosstabGuess: FirstGuess<CrosstabSpec> = {
  question: 'How do two things meet?',
  found: 'cross-tab crosstab table by across rows columns margins share',
  asks: ['cross-tab', 'crosstab', 'cross tab'],
  measures: () => ['records'],
  meant: (wish) => wish.beside !== undefined,
  guess(facts, wish) {
    const keys = keysFor(facts, wish);
    const date = dateFor(facts, wish);
    if (keys.length === 0) return { needs: NEEDS.group };
    const [down, second] = keys;
    const across =
      wish.beside && date
        ? keyOf(date, wish.beside)
        : wish.by && wish.by.length > 1
          ? second
          : date
            ? keyOf(date, wish.weekday ? 'weekday' : wish.period)
            : second;
    if (!across || across.column === down.column)
      return { needs: 'It needs two columns to group by.' };
    // Days, or names, of which there are too many to stand side by side go down the page.
    const turned =
      groupsOf(facts, across) > MOST_ACROSS && groupsOf(facts, down) < groupsOf(facts, across);
    return {
      tally: {
        ...common,
        kind: 'crosstab',
        down: [turned ? across : down],
        across: [turned ? down : across],
        measures: measuresFor(facts, wish),
        shares: [],
        count: false,
        few: fewIn(facts),
      },
    };
  },
};
