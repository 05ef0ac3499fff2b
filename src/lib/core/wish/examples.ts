import type { ColumnFact, ListFacts } from '../tally/wish/guess';
import type { ListWords } from './listWords';
import { offersFor } from './offers';

/** Values of a column that groups are made by: some of them stand more than once. */
const [FEWEST, MOST] = [2, 60];

const isGroup = ({ type, values, distinct }: ColumnFact): boolean =>
  (type === 'text' || type === 'yesno') &&
  distinct >= FEWEST &&
  distinct <= MOST &&
  distinct < values;

/**
 * Wishes that a list answers, to begin with: at most three, each understood to its last word.
 * @example exampleWishes(words, facts, 'Sailings') // ['Fares taken by Route', 'mean Delay by month', 'top 3 Vessel by Fares taken']
 */
export function exampleWishes(words: ListWords, facts: ListFacts, listName: string): string[] {
  const { columns } = facts;
  const numbers = columns.filter(({ type, adds }) => type === 'number' && adds);
  const lead = numbers.find(({ id }) => id === facts.lead) ?? numbers[0];
  const other = columns.find(({ id, type }) => type === 'number' && id !== lead?.id) ?? lead;
  const [group, second = group] = columns.filter(isGroup);
  const dated = columns.some(({ type }) => type === 'date' || type === 'datetime');
  const wishes = [
    ...(lead && group ? [`${lead.name} by ${group.name}`] : []),
    ...(other && dated ? [`mean ${other.name} by month`] : []),
    ...(lead && second ? [`top 3 ${second.name} by ${lead.name}`] : []),
    ...(group ? [`how often each ${group.name}`] : []),
    ...(lead && dated ? [`${lead.name} by quarter`] : []),
  ];
  return wishes
    .filter((wish) => {
      const [first] = offersFor(wish, words, facts, listName, []);
      return first && first.left.length === 0 && first.taken.length === 0;
    })
    .slice(0, 3);
}
