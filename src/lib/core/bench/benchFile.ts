import { z } from 'zod';
import { Recipe } from '../read/recipe';
import type { Bench } from './document';
import { AnyBench, isBench } from './upgrade';

/**
 * A bench as a file, with how its list was read and how those were that it looks at: whoever makes its report
 * elsewhere reads the same file as the same list.
 */
const BenchFile = z.strictObject({
  bench: AnyBench,
  /** How the list of the bench was read. */
  recipe: Recipe,
  /** How the other lists were read, by the names that the bench gives them. */
  recipes: z.record(z.string().min(1).max(200), Recipe).default({}),
});

/** What a bench's file holds; recipes where it has them. */
export interface BenchRead {
  readonly doc: Bench;
  readonly recipe: Recipe | null;
  readonly recipes: Readonly<Record<string, Recipe>>;
}

/** Whether a document is a bench with its recipes. */
const hasRecipes = (document: unknown): boolean =>
  typeof document === 'object' && document !== null && 'bench' in document;

/** Whether a document is meant as a bench, and not as an ask. */
export const isBenchFile = (document: unknown): boolean =>
  hasRecipes(document) || isBench(document);

/** A bench as it is saved. */
export const benchFile = (
  bench: Bench,
  recipe: Recipe,
  recipes: Readonly<Record<string, Recipe>>,
): string => JSON.stringify({ bench, recipe, recipes }, null, 1);

/**
 * A bench from its file, or from one that an earlier version saved, which held the bench alone.
 * @throws ZodError where it is no bench
 */
export function readBenchFile(document: unknown): BenchRead {
  if (!hasRecipes(document)) return { doc: AnyBench.parse(document), recipe: null, recipes: {} };
  const { bench, recipe, recipes } = BenchFile.parse(document);
  return { doc: bench, recipe, recipes };
}
