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
import type { Wish } from '../../wish/wish';
import type { Measure } from '../../../measure/measure';
import type { ReconciliationSpec } from './spec';

const NEEDS =
  'It needs another list with a column of the same name to meet by, as targets or a statement have: bring it in first.';

export const reconciliationGuess: FirstGuess<ReconciliationSpec> = {
  question: 'Does it agree with another list?',
  found:
    'reconcile reconciliation agree agrees against side by side plan target targets actual budget statement two lists tolerance',
  asks: ['reconcile', 'reconciliation', 'reconciled', 'agree', 'agrees', 'tolerance'],
  invents: (wish) => wish.against === undefined,
  meant: (wish) => wish.against !== undefined,
  guess(facts, wish) {
    const [best] = (facts.others ?? [])
      .filter(({ name }) => wish.against === undefined || name === wish.against)
      .flatMap((other) => meetingOf(facts, wish, other))
      .sort((a, b) => b.fit - a.fit);
    if (!best) return { needs: NEEDS };
    const { other, key, measure, against } = best;
    return {
      tally: {
        ...common,
        kind: 'reconciliation',
        with: other.name,
        measure: against ? measure : RECORDS,
        by: [keyOf(key, wish.period)],
        against: against ?? RECORDS,
        tolerance: { in: 'amount', most: 0 },
        apart: false,
        order: 'size',
      },
    };
  },
};

const RECORDS: Measure = { kind: 'records' };

/** How a list could be set against this one; the more fits, the likelier it is meant. */
interface Meeting {
  readonly other: OtherList;
  readonly key: ColumnFact;
  readonly measure: Measure;
  readonly against: Measure | null;
  readonly fit: number;
}

/** By the column of the same name; days alone, which nearly every list has, only where the list was named. */
function meetingOf(facts: ListFacts, wish: Wish, other: OtherList): Meeting[] {
  const key = keysThat(facts, wish).find((column) => sameIn(other, column));
  if (!key) return [];
  const isDay = key.type === 'date' || key.type === 'datetime';
  if (isDay && wish.against === undefined) return [];
  const measure = measureFor(facts, wish.column === key.id ? {} : wish);
  const own = facts.columns.find((c) => c.id === measure.column);
  const same = own && sameIn(other, own) ? 1 : 0;
  return [
    {
      other,
      key,
      measure,
      against: againstIn(facts, other, measure, key),
      fit: isDay ? 0 : 1 + same,
    },
  ];
}

/** Columns to group by, those wished for first, then those of few values, then the date. */
function keysThat(facts: ListFacts, wish: Wish): ColumnFact[] {
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
