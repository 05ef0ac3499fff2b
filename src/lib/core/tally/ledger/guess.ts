import { common, keysFor, measureFor, NEEDS, type FirstGuess } from '../guess';
import type { LedgerSpec } from './spec';

export const ledgerGuess: FirstGuess<LedgerSpec> = {
  question: 'What does each group come to?',
  found: 'ledger subtotals totals groups list records',
  guess(facts, wish) {
    const keys = keysFor(facts, wish);
    if (keys.length === 0) return { needs: NEEDS.group };
    const groups = wish.by?.length ? keys.slice(0, wish.by.length) : keys.slice(0, 2);
    const measure = measureFor(facts, wish);
    return {
      tally: {
        ...common,
        kind: 'ledger',
        groups,
        sort: [],
        measures: measure.kind === 'records' ? [measure] : [{ kind: 'records' }, measure],
        records: false,
      },
    };
  },
};
