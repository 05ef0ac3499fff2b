import { absentColumn, partialColumn, type PartialAggregates } from '../measure/partialColumn';
import { Moments } from '../measure/moments';
import { isText, type Column, type ScalarColumn } from '../table/column';
import { columnOf, type Table } from '../table/table';
import { finish } from '../task/task';
import type { Roles } from './condense';

/**
 * What a column that is added up comes to in each group, in the order in which a database answers it. Squares are
 * Σ(x − mean)², the magnitude is Σ|x|, and `unread` counts what is there and no number.
 */
export const AGGREGATES = [
  'count',
  'sum',
  'lowest',
  'highest',
  'squares',
  'magnitude',
  'unread',
] as const;

const [LOWEST, HIGHEST] = [AGGREGATES.indexOf('lowest'), AGGREGATES.indexOf('highest')];

/**
 * The records of a list as a database grouped them: a row for each group, which stands for as many records.
 * @param answer the values of the columns kept, the number of records, then the aggregates of each column summed
 * @param list the columns of the list
 * @returns a part, for a `Condenser` or alone
 * @example
 * // depot | records | count, sum, lowest, highest, squares, magnitude, unread of fee
 * groupedPart(answer, columns, { kept: ['depot'], summed: ['fee'] }).weights; // how many records each row stands for
 */
export function groupedPart(answer: Table, list: readonly Column[], roles: Roles): Table {
  const { kept, summed, squared = summed } = roles;
  const scalar = (place: number): ScalarColumn => {
    const column = answer.columns[place];
    if (!column || isText(column)) throw new RangeError('The answer is not of these columns.');
    return column;
  };
  // Of no value there is no sum: 0, as of no record.
  const numbers = (place: number): Float64Array =>
    scalar(place).values.map((v) => (v === v ? v : 0));
  const made = new Map<string, Column>();
  kept.forEach((id, k) =>
    made.set(id, keptAs(columnOf({ columns: list, length: 0 }, id), answer.columns[k])),
  );
  summed.forEach((id, k) => {
    const about = columnOf({ columns: list, length: 0 }, id);
    if (isText(about)) throw new RangeError(`“${about.name}” holds no numbers.`);
    const first = kept.length + 1 + k * AGGREGATES.length;
    const [count, sum, lowest, highest, squares, magnitude, unread] = AGGREGATES.map((_, a) =>
      numbers(first + a),
    );
    // What was not asked for is not known. Of equal values there is no deviation, whatever rounding left of it.
    if (!squared.includes(id)) squares.fill(NaN);
    else
      squares.forEach((_, g) => {
        if (lowest[g] === highest[g]) squares[g] = 0;
      });
    const moments = finish(Moments.ofAggregates({ count, sum, lowest, highest, squares }));
    const partial: PartialAggregates = { moments, magnitude, unread };
    // The extremes are values of the list: it has at least their decimals, whatever its first records showed.
    const shown = [LOWEST, HIGHEST].map((at) => scalar(first + at).decimals);
    const decimals = Math.max(about.decimals, ...shown);
    made.set(id, partialColumn({ ...about, decimals }, partial));
  });
  return {
    length: answer.length,
    columns: list.map((column) => made.get(column.id) ?? absentColumn(column)),
    weights: numbers(kept.length),
  };
}

/** A column that was answered under the name it has in the list. */
function keptAs({ id, name, unit, type }: Column, column: Column): Column {
  if (column.type !== type) throw new RangeError(`“${name}” came as another type than it has.`);
  return { ...column, id, name, unit };
}
