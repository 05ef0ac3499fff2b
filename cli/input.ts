import { closeSync, openSync, readFileSync, readSync } from 'node:fs';
import path from 'node:path';
import { HEAD_BYTES } from '$lib/core/read/decode';
import { DelimitedReader, proposeRecipe, type DelimitedReading } from '$lib/core/read/delimited';
import { Recipe } from '$lib/core/read/recipe';
import { Failed, Misused } from './exit';

const CHUNK = 1 << 20;

/** A whole file, or standard input for `-`. @throws Failed */
export function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file === '-' ? 0 : file);
  } catch (error) {
    throw new Failed(`“${file}” cannot be read: ${error instanceof Error ? error.message : error}`);
  }
}

/** A JSON document. @throws Misused where it is no JSON */
export function readJson(file: string, what: string): unknown {
  const text = new TextDecoder().decode(readBytes(file));
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Misused(
      `The ${what} is not JSON: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

/** A recipe from its file. @throws Misused */
export function readRecipe(document: unknown): Recipe {
  const parsed = Recipe.safeParse(document);
  if (parsed.success) return parsed.data;
  throw new Misused(
    parsed.error.issues.map((i) => `recipe.${i.path.join('.')}: ${i.message}`).join('\n'),
  );
}

/** Reads a delimited file by a recipe, or by the one it gets by itself. @throws Failed, IntakeError */
export function readList(
  file: string,
  given: Recipe | null,
): { recipe: Recipe; reading: DelimitedReading } {
  if (file === '-') {
    const bytes = readBytes(file);
    const recipe =
      given ?? proposeRecipe(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES);
    const reader = new DelimitedReader(recipe);
    reader.push(bytes, true);
    return { recipe, reading: reader.finish() };
  }
  let handle: number;
  try {
    handle = openSync(file, 'r');
  } catch (error) {
    throw new Failed(`“${file}” cannot be read: ${error instanceof Error ? error.message : error}`);
  }
  try {
    const head = new Uint8Array(HEAD_BYTES);
    const size = readSync(handle, head, 0, HEAD_BYTES, 0);
    const recipe = given ?? proposeRecipe(head.subarray(0, size), size < HEAD_BYTES);
    const reader = new DelimitedReader(recipe);
    for (let at = 0; ;) {
      const chunk = new Uint8Array(CHUNK);
      const read = readSync(handle, chunk, 0, CHUNK, at);
      at += read;
      reader.push(chunk.subarray(0, read), read < CHUNK);
      if (read < CHUNK) break;
    }
    return { recipe, reading: reader.finish() };
  } finally {
    closeSync(handle);
  }
}

/** What a file is called without its folder and ending. */
export const listName = (file: string): string =>
  file === '-' ? 'The list' : path.basename(file).replace(/\.[^.]+$/, '');
