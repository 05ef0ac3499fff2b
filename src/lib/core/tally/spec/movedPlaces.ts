import type { Measure } from '../../measure/measure';

const same = (a: Measure, b: Measure): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);

/** Where each of the old measures stands among the new; -1: taken out. */
export const movedPlaces = (old: readonly Measure[], next: readonly Measure[]): number[] =>
  old.map((measure) => next.findIndex((m) => same(m, measure)));
