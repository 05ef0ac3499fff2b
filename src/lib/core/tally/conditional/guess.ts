import type { Condition } from '../../scope/condition';
import { common, keysFor, measureFor, NEEDS, spreadFor, type FirstGuess } from '../guess';
import type { ConditionalSpec } from './spec';

export const conditionalGuess: FirstGuess<ConditionalSpec> = {
  question: 'How many, how much, if…?',
  found: 'conditional condition where if count sum both overlap',
  guess(facts, wish) {
    const number = spreadFor(facts, wish);
    const columns: ConditionalSpec['columns'] = [
      { measure: { kind: 'records' } },
      { measure: measureFor(facts, number?.id === wish.column ? {} : wish) },
    ];
    const few = { ...common, kind: 'conditional' as const, everythingElse: true, few: 10 };
    if (number) {
      const value = Math.round((number.least + (number.most - number.least) / 10) * 100) / 100;
      const condition: Condition = {
        kind: 'leaf',
        column: number.id,
        not: false,
        test: { test: 'mean', side: 'above' },
      };
      const high: Condition = {
        kind: 'leaf',
        column: number.id,
        not: false,
        test: { test: 'compare', op: 'ge', value },
      };
      return {
        tally: {
          ...few,
          rows: [
            { name: `${number.name} above its mean`, condition },
            { name: `${number.name} at least ${value}`, condition: high },
          ],
          columns,
        },
      };
    }
    const [key] = keysFor(facts, wish);
    if (!key) return { needs: NEEDS.number };
    return { tally: { ...few, everythingElse: false, rows: [], key, columns } };
  },
};
