import type { Measure } from '../../../measure/measure';
import type { Condition } from '../../../selection/condition';
import type { ConditionalSpec } from './spec';

type Column = ConditionalSpec['columns'][number];

/** Measures that are asked under each of the same conditions: what a sentence says once. */
export interface Product {
  readonly measures: readonly Measure[];
  readonly conditions: readonly Condition[];
}

/** A column for each measure under each condition, condition by condition. */
export const columnsOf = ({ measures, conditions }: Product): Column[] =>
  conditions.flatMap((condition) => measures.map((measure) => ({ measure, condition })));

/**
 * The measures and conditions that columns are made of; null where they are no product, one figure
 * alone, or have names of their own.
 */
export function productOf(columns: readonly Column[]): Product | null {
  const [first] = columns;
  if (!first.condition || columns.length < 2) return null;
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  const next = columns.findIndex(({ condition }) => !same(condition, first.condition));
  const size = next < 0 ? columns.length : next;
  const measures = columns.slice(0, size).map(({ measure }) => measure);
  const conditions: Condition[] = [];
  for (const [k, { condition, measure, name }] of columns.entries()) {
    if (!condition || name !== undefined || !same(measure, measures[k % size])) return null;
    if (k % size === 0) conditions.push(condition);
    else if (!same(condition, conditions[conditions.length - 1])) return null;
  }
  const whole = columns.length === conditions.length * size;
  const apart = new Set(conditions.map((c) => JSON.stringify(c))).size === conditions.length;
  return whole && apart ? { measures, conditions } : null;
}
