import type { Condition } from '../../../selection/condition';
import { describeCondition } from '../../../selection/describe';
import type { Wish } from '../../wish/wish';
import { columnsOf } from './product';
import {
  common,
  fewIn,
  keysFor,
  measureFor,
  NEEDS,
  spreadFor,
  wishedKeys,
  type FirstGuess,
  type ListFacts,
} from '../../wish/guess';
import type { ConditionalSpec } from './spec';

export const conditionalGuess: FirstGuess<ConditionalSpec> = {
  question: 'How many, how much, if…?',
  found: 'conditional condition where if count sum both overlap',
  asks: ['conditional', 'overlap'],
  measures: () => ['records'],
  meant: (wish) => wish.conditions !== undefined,
  // Its conditions are examples where none was wished for.
  invents: (wish) => wish.conditions === undefined,
  guess(facts, wish) {
    if (wish.conditions) return { tally: asked(facts, wish, wish.conditions) };
    const number = spreadFor(facts, wish);
    const columns: ConditionalSpec['columns'] = [
      { measure: { kind: 'records' } },
      { measure: measureFor(facts, number?.id === wish.column ? {} : wish) },
    ];
    const few = {
      ...common,
      kind: 'conditional' as const,
      everythingElse: true,
      few: fewIn(facts),
    };
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

const LONGEST_NAME = 200;

/** Conditions in so many words: as rows, or, by a key, across. */
function asked(facts: ListFacts, wish: Wish, conditions: readonly Condition[]): ConditionalSpec {
  const names = new Map(facts.columns.map(({ id, name }) => [id, name]));
  const all = conditions.map((condition) => ({
    name: describeCondition(condition, names).slice(0, LONGEST_NAME),
    condition,
  }));
  const parts = [...conditions];
  if (wish.both && parts.length > 1)
    all.push({ name: 'both', condition: { kind: 'all', not: false, parts } });
  if (wish.neither) all.push({ name: 'neither', condition: { kind: 'none', not: false, parts } });
  const measures = wish.measures ?? [{ kind: 'records' as const }];
  const [key] = wishedKeys(facts, wish);
  const few = { ...common, kind: 'conditional' as const, few: fewIn(facts) };
  return key
    ? {
        ...few,
        everythingElse: false,
        rows: [],
        key,
        columns: columnsOf({ measures, conditions: all.map(({ condition }) => condition) }),
      }
    : {
        ...few,
        everythingElse: !wish.neither,
        rows: all,
        columns: measures.map((measure) => ({ measure })),
      };
}
