import {
  common,
  keysFor,
  measuresFor,
  NEEDS,
  wishedCount,
  type FirstGuess,
  type ListFacts,
} from '../../wish/guess';
import type { Wish } from '../../wish/wish';
import type { LedgerSpec } from './spec';

/** Totals by the list's first groups, or by those wished; of the whole where it has none. */
export function totalsFor(facts: ListFacts, wish: Wish): LedgerSpec {
  const keys = keysFor(facts, wish);
  const measures = measuresFor(facts, wish);
  return {
    ...common,
    kind: 'ledger',
    groups: wish.by ? keys.slice(0, wishedCount(wish)) : keys.slice(0, 2),
    sort: [],
    // How many records a group has stands beside its label anyway.
    measures: measures.length ? measures : [{ kind: 'records' }],
    records: false,
  };
}

export const ledgerGuess: FirstGuess<LedgerSpec> = {
  question: 'What does each group come to?',
  found: 'ledger subtotals totals groups list records',
  asks: ['ledger', 'subtotals', 'subtotal', 'totals'],
  measures: () => ['records'],
  guess(facts, wish) {
    const tally = totalsFor(facts, wish);
    return tally.groups.length || wish.by ? { tally } : { needs: NEEDS.group };
  },
};
