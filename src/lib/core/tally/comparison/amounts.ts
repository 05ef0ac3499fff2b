import { columnFor } from '../../expression/columnFor';
import { CompensatedSum } from '../../measure/compensated';
import type { Measure } from '../../measure/measure';
import { has, members, type Bitset } from '../../table/bitset';
import { isNumeric } from '../../table/column';
import type { Table } from '../../table/table';
import type { Figure } from '../result';
import type { Matched } from './match';

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

/** Records of one reading that may have moved a figure, and which of them are in it. */
export interface Side {
  /** By their numbers, in their order. */
  readonly records: Int32Array;
  /** The place of each record of the reading among them; −1 for those that are not. */
  readonly places: Int32Array;
  /** Those of the figure, by their places. */
  readonly within: Bitset;
}

/**
 * Takes the difference of a sum or a count apart by the records of both readings: what is in the newer
 * figure alone and came, what is in the older alone and went, and for a record in both its value in
 * the newer figure less that in the older (0 where it does not count). Every record of either figure
 * is in one of them once, so they come to the difference.
 * @param now records of the newer reading that may have moved it; the others are the same in both figures
 * @returns null for a figure that does not add up
 */
export function amountsOf(
  moved: MovedAmount,
  newer: Table,
  older: Table,
  now: Side,
  then: Side,
  matched: Matched,
): Amounts | null {
  const { measure } = moved;
  if (!measure) return null;
  const [valueNow, valueThen] = [valueIn(measure, newer), valueIn(measure, older)];
  if (!valueNow || !valueThen) return null;
  const sums = {
    added: new CompensatedSum(),
    gone: new CompensatedSum(),
    changed: new CompensatedSum(),
  };
  let [magnitude, n] = [0, 0];
  const add = (to: CompensatedSum, value: number): void => {
    if (value === 0) return;
    to.add(value);
    magnitude += Math.abs(value);
    n++;
  };
  const isIn = ({ places, within }: Side, record: number): boolean =>
    places[record] >= 0 && has(within, places[record]);
  for (const k of members(now.within)) {
    const i = now.records[k];
    const old = matched.older[i];
    const value = valueNow(i);
    if (old < 0) add(sums.added, value);
    else add(sums.changed, value - (isIn(then, old) ? valueThen(old) : 0));
  }
  for (const k of members(then.within)) {
    const i = then.records[k];
    const next = matched.newer[i];
    if (next < 0) add(sums.gone, -valueThen(i));
    else if (!isIn(now, next)) add(sums.changed, -valueThen(i));
  }
  const [added, gone, changed] = [sums.added.value, sums.gone.value, sums.changed.value];
  // A group that is not there has a sum of 0.
  const difference = numberOf(moved.after) - numberOf(moved.before);
  const left = difference - (added + gone + changed);
  const size = magnitude + Math.abs(numberOf(moved.after)) + Math.abs(numberOf(moved.before));
  return { added, gone, changed, left: Math.abs(left) <= (n + 3) * 2 ** -52 * size ? 0 : left };
}

const numberOf = (figure: Figure): number => (typeof figure === 'number' ? figure : 0);

/** What a record adds to a measure; null where the measure does not add up. */
function valueIn(measure: Measure, table: Table): ((record: number) => number) | null {
  if (measure.kind === 'records') return () => 1;
  if (measure.kind !== 'sum' && measure.kind !== 'values') return null;
  const column = columnFor(table, measure.column ?? '');
  if (measure.kind === 'values')
    return isNumeric(column) ? (i) => (column.values[i] === column.values[i] ? 1 : 0) : null;
  if (!isNumeric(column)) return null;
  return (i) => (column.values[i] === column.values[i] ? column.values[i] : 0);
}
