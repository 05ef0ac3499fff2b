import { columnFor } from '../../../expression/columnFor';
import { CompensatedSum } from '../../../measure/compensated';
import type { Measure } from '../../../measure/measure';
import { isNumeric } from '../../../table/column';
import type { Table } from '../../../table/table';
import type { Figure } from '../../answer/result';
import { howOf, type Mover } from './movers';

/** What moved a figure that adds up: records that came, went, or are in both readings. */
export interface Amounts {
  readonly added: number;
  readonly gone: number;
  readonly changed: number;
  /** Difference less those three: 0 within the bound of rounding, n · 2⁻⁵² · Σ|x|. */
  readonly left: number;
}

/** A figure of both readings, and what it is a measure of. */
export interface MovedAmount {
  readonly before: Figure;
  readonly after: Figure;
  readonly measure?: Measure | undefined;
}

/**
 * Takes the difference of a sum or a count apart by the records of both readings: what is in the newer
 * figure alone and came, what is in the older alone and went, and for a record in both its value in
 * the newer figure less that in the older (0 where it does not count). Every record of either figure
 * is in one of them once, so they come to the difference.
 * @param movers the records that may have moved it; all others are the same in both figures
 * @returns null for a figure that does not add up
 */
export function amountsOf(
  moved: MovedAmount,
  newer: Table,
  older: Table,
  movers: readonly Mover[],
): Amounts | null {
  const { measure } = moved;
  if (!measure) return null;
  const [valueNow, valueThen] = [addsIn(measure, newer), addsIn(measure, older)];
  if (!valueNow || !valueThen) return null;
  const sums = {
    came: new CompensatedSum(),
    went: new CompensatedSum(),
    changed: new CompensatedSum(),
  };
  let magnitude = 0;
  let n = 0;
  for (const mover of movers) {
    const { now, then, isIn, wasIn } = mover;
    const value = (isIn ? valueNow(now) : 0) - (wasIn ? valueThen(then) : 0);
    if (value === 0) continue;
    sums[howOf(mover)].add(value);
    magnitude += Math.abs(value);
    n++;
  }
  const [added, gone, changed] = [sums.came.value, sums.went.value, sums.changed.value];
  // A group that is not there has a sum of 0.
  const difference = numberOf(moved.after) - numberOf(moved.before);
  const left = difference - (added + gone + changed);
  const size = magnitude + Math.abs(numberOf(moved.after)) + Math.abs(numberOf(moved.before));
  return { added, gone, changed, left: Math.abs(left) <= (n + 3) * 2 ** -52 * size ? 0 : left };
}

const numberOf = (figure: Figure): number => (typeof figure === 'number' ? figure : 0);

/** What a record adds to a measure; null where the measure does not add up. */
export function addsIn(measure: Measure, table: Table): ((record: number) => number) | null {
  if (measure.kind === 'records') return () => 1;
  if (measure.kind !== 'sum' && measure.kind !== 'values') return null;
  const column = columnFor(table, measure.column ?? '');
  if (measure.kind === 'values')
    return isNumeric(column) ? (i) => (column.values[i] === column.values[i] ? 1 : 0) : null;
  if (!isNumeric(column)) return null;
  return (i) => (column.values[i] === column.values[i] ? column.values[i] : 0);
}
