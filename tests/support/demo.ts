import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { HEAD_BYTES } from '$lib/core/read/decode';
import { DelimitedReader, proposeRecipe, type DelimitedReading } from '$lib/core/read/delimited';
import type { Recipe } from '$lib/core/read/recipe';

export const demoPath = (name: string): string =>
  fileURLToPath(new URL(`../../demo/${name}.csv`, import.meta.url));

/** Reads text by the recipe it gets by itself, changed where asked. */
export function readText(
  text: string | Uint8Array,
  change: (recipe: Recipe) => Recipe = (r) => r,
): { recipe: Recipe; reading: DelimitedReading } {
  const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text;
  const recipe = change(proposeRecipe(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES));
  const reader = new DelimitedReader(recipe);
  reader.push(bytes, true);
  return { recipe, reading: reader.finish() };
}

export const readDemo = (name: string): { recipe: Recipe; reading: DelimitedReading } =>
  readText(readFileSync(demoPath(name)));
