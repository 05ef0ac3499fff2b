import { reconsider, type DelimitedReading } from './delimited';
import type { Recipe } from './recipe';

/** A file read to its end, by the recipe that stood. */
export interface SettledReading {
  readonly recipe: Recipe;
  readonly reading: DelimitedReading;
}

/**
 * The readings that a file needs: one by its recipe, and one more where the whole of it shows a
 * better one (the first half-million dates may leave open what the last ones tell). Page and command
 * line drive the same: each recipe given out is read by, and its reading handed back.
 * @param fixed columns whose recipe stands whatever the file shows
 *
 * @example
 * const steps = settle(recipe, new Set());
 * for (let step = steps.next(); ; step = steps.next(read(step.value))) if (step.done) return step.value;
 */
export function* settle(
  recipe: Recipe,
  fixed: ReadonlySet<string>,
): Generator<Recipe, SettledReading, DelimitedReading> {
  const reading = yield recipe;
  const better = reconsider(recipe, reading, fixed);
  return better ? { recipe: better, reading: yield better } : { recipe, reading };
}
