import { common, keysFor, measureFor, NEEDS, numberFor, type FirstGuess } from '../../wish/guess';
import type { RankingSpec } from './spec';

export const rankingGuess: FirstGuess<RankingSpec> = {
  question: 'Who comes first?',
  found: 'rank ranking top first last best highest lowest places',
  asks: ['rank', 'ranks', 'ranked', 'ranking', 'comes first', 'come first'],
  ofColumn: { words: 'rank by it', types: ['number'] },
  meant: (wish) =>
    wish.within !== undefined || wish.first !== undefined || wish.order !== undefined,
  guess(facts, wish) {
    const keys = keysFor(facts, wish);
    const number = numberFor(facts, wish);
    // Without a wish, the column with the most groups: those that come first stand out of many.
    const most = [...keys].sort((a, b) => groupsOf(b.column) - groupsOf(a.column));
    function groupsOf(id: string): number {
      return facts.columns.find((c) => c.id === id)?.distinct ?? 0;
    }
    const [key] = wish.by?.length ? keys : most;
    if (!key && !number) return { needs: NEEDS.number };
    const shared = {
      ...common,
      kind: 'ranking',
      from: wish.order ?? 'highest',
      ties: 'gap',
      within: 0,
    } as const;
    // An order without a number is of all.
    const top = (usual: number): { top?: number } =>
      wish.first === undefined && wish.order !== undefined ? {} : { top: wish.first ?? usual };
    const parents = Math.min(wish.within ?? 0, (wish.by?.length ?? 0) - 1);
    if (!key)
      return {
        tally: {
          ...shared,
          groups: [],
          by: { kind: 'sum', column: number?.id ?? '' },
          ...top(10),
          show: facts.columns.slice(0, 2).map((c) => c.id),
        },
      };
    return {
      tally: {
        ...shared,
        ...(parents > 0 && { within: parents }),
        groups: parents > 0 ? keys.slice(0, wish.by?.length) : [key],
        by: measureFor(facts, wish),
        ...top(5),
        show: [],
      },
    };
  },
};
