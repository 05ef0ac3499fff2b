import { common, keysFor, measureFor, NEEDS, type FirstGuess, type ListFacts } from '../guess';
import type { Wish } from '../wish';
import type { LedgerSpec } from './spec';

/** Totals by the list's first groups, or by those wished; of the whole where it has none. */
export function totalsFor(facts: ListFacts, wish: Wish): LedgerSpec {
  const keys = keysFor(facts, wish);
  const measure = measureFor(facts, wish);
  return {
    ...common,
    kind: 'ledger',
    groups: wish.by?.length ? keys.slice(0, wish.by.length) : keys.slice(0, 2),
    sort: [],
    measures: measure.kind === 'records' ? [measure] : [{ kind: 'records' }, measure],
    records: false,
  };
}

export const ledgerGuess: FirstGuess<LedgerSpec> = {
  question: 'What does each group come to?',
  found: 'ledger subtotals totals groups list records',
  guess(facts, wish) {
    const tally = totalsFor(facts, wish);
    return tally.groups.length ? { tally } : { needs: NEEDS.group };
  },
};
