import {
  common,
  dateFor,
  keyOf,
  keysFor,
  measureFor,
  type ColumnFact,
  type FirstGuess,
  type ListFacts,
  type OtherList,
} from '../../wish/guess';
import type { Measure } from '../../../measure/measure';
import type { ReconciliationSpec } from './spec';

const NEEDS =
  'It needs another list with a column of the same name to meet by, as targets or a statement have: bring it in first.';

export const reconciliationGuess: FirstGuess<ReconciliationSpec> = {
  question: 'Does it agree with another list?',
  found:
    'reconcile reconciliation agree agrees against side by side plan target targets actual budget statement two lists tolerance',
  invents: (wish) => wish.against === undefined,
  meant: (wish) => wish.against !== undefined,
  guess(facts, wish) {
    const others = (facts.others ?? []).filter(
      ({ name }) => wish.against === undefined || name === wish.against,
    );
    for (const other of others) {
      const key = keysThat(facts, wish).find((column) => sameIn(other, column));
      if (!key) continue;
      const measure = measureFor(facts, wish.column === key.id ? {} : wish);
      const against = againstIn(facts, other, measure, key);
      return {
        tally: {
          ...common,
          kind: 'reconciliation',
          with: other.name,
          measure: against ? measure : { kind: 'records' },
          by: [keyOf(key, wish.period)],
          ...(against ? { against } : { against: { kind: 'records' } }),
          tolerance: { in: 'amount', most: 0 },
          apart: false,
          order: 'size',
        },
      };
    }
    return { needs: NEEDS };
  },
};

/** Columns to group by, those wished for first, then those of few values, then the date. */
function keysThat(facts: ListFacts, wish: Parameters<typeof keysFor>[1]): ColumnFact[] {
  const ids = [
    ...keysFor(facts, wish).map((key) => key.column),
    ...(dateFor(facts, wish) ? [dateFor(facts, wish)?.id] : []),
  ];
  return ids.flatMap((id) => facts.columns.find((c) => c.id === id) ?? []);
}

const sameIn = ({ columns }: OtherList, { name, type }: ColumnFact): boolean =>
  columns.some((c) => c.name.toLowerCase() === name.toLowerCase() && c.type === type);

/** The measure of the other list: of the column of the same name, else of its first number. */
function againstIn(
  facts: ListFacts,
  { columns }: OtherList,
  measure: Measure,
  key: ColumnFact,
): Measure | null {
  const own = facts.columns.find((c) => c.id === measure.column);
  const numbers = columns.filter((c) => c.type === 'number' && c.name !== key.name);
  const column =
    numbers.find((c) => c.name.toLowerCase() === own?.name.toLowerCase()) ?? numbers.at(0);
  return column
    ? { kind: measure.column === undefined ? 'sum' : measure.kind, column: column.name }
    : null;
}
