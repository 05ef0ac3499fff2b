import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import { DelimitedReader, proposeRecipe, type DelimitedReading } from '$lib/core/read/delimited';
import type { Recipe } from '$lib/core/read/recipe';
import { settle, type SettledReading } from '$lib/core/read/settle';

export const demoPath = (name: string): string =>
  fileURLToPath(new URL(`../../demo/${name}.csv`, import.meta.url));

/** Reads text by the recipe it gets by itself, changed where asked. */
export function readText(
  text: string | Uint8Array,
  change: (recipe: Recipe) => Recipe = (r) => r,
): { recipe: Recipe; reading: DelimitedReading } {
  const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text;
  const recipe = change(proposeRecipe(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES));
  return { recipe, reading: readBy(recipe, bytes) };
}

function readBy(recipe: Recipe, bytes: Uint8Array): DelimitedReading {
  const reader = new DelimitedReader(recipe);
  reader.push(bytes, true);
  return reader.finish();
}

/** Reads text as an intake does, with what only the whole of it tells. */
export function readSettled(text: string): SettledReading {
  const bytes = new TextEncoder().encode(text);
  const steps = settle(proposeRecipe(bytes, true), new Set());
  for (let step = steps.next(); ; step = steps.next(readBy(step.value, bytes)))
    if (step.done) return step.value;
}

export const readDemo = (name: string): { recipe: Recipe; reading: DelimitedReading } =>
  readText(readFileSync(demoPath(name)));
