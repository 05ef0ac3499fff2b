import type { Table } from '../../../table/table';
import { recordNumber } from '../../../table/recordNumber';
import { LEAST_VALUES, influenceWords, type Influence } from '../../trust/influence';
import { figureOf, type FigureColumn, type Mark } from '../../answer/result';
import type { RankingSpec } from './spec';

/** How many of these stand before a value, one of them left out: by halves, as they stand in order. */
function before(
  values: Float64Array,
  order: readonly number[],
  but: number,
  value: number,
  from: RankingSpec['from'],
): number {
  const isBefore = (g: number): boolean =>
    from === 'highest' ? values[g] > value : values[g] < value;
  let low = 0;
  let high = order.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (isBefore(order[middle])) low = middle + 1;
    else high = middle;
  }
  return low - Number(isBefore(but));
}

/**
 * Marks a place that one record makes: without it the group would stand elsewhere.
 * @param order the groups ranked with it, from the first place
 * @param at the column of the place
 */
export function placeMark(
  table: Table,
  column: FigureColumn,
  rests: Influence | null,
  values: Float64Array,
  group: number,
  order: readonly number[],
  from: RankingSpec['from'],
  at = 0,
): Mark[] {
  if (!rests || rests.values < LEAST_VALUES) return [];
  const place = before(values, order, group, values[group], from) + 1;
  const without = before(values, order, group, rests.without, from) + 1;
  if (place === without) return [];
  return [
    {
      column: at,
      kind: 'rests',
      words: `Place ${without} without one record. ${influenceWords(table, column, rests)}`,
      record: recordNumber(rests.record),
      without: figureOf(without),
    },
  ];
}
