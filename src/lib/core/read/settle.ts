import { reconsider, type DelimitedReading, type ReadThrough } from './delimited';
import type { Recipe } from './recipe';

/** A file read to its end, by the recipe that stood. */
export interface SettledReading<Reading extends ReadThrough = DelimitedReading> {
  readonly recipe: Recipe;
  readonly reading: Reading;
}

/**
 * The readings that a file needs: one by its recipe, and more where the whole of it shows a better
 * one (notes below the table; what half a million dates leave open and the last ones tell). Page and command
 * line drive the same: each recipe given out is read by, and its reading handed back.
 * @param fixed columns whose recipe stands whatever the file shows
 *
 * @example
 * const steps = settle(recipe, new Set());
 * for (let step = steps.next(); ; step = steps.next(read(step.value))) if (step.done) return step.value;
 */
export function* settle<Reading extends ReadThrough = DelimitedReading>(
  recipe: Recipe,
  fixed: ReadonlySet<string>,
): Generator<Recipe, SettledReading<Reading>, Reading> {
  let used = recipe;
  let reading = yield recipe;
  // Notes below the table first, then what they said of the columns is out of the way.
  for (let n = 0; n < 2; n++) {
    const better = reconsider(used, reading, fixed);
    if (!better) break;
    [used, reading] = [better, yield better];
  }
  return { recipe: used, reading };
}
