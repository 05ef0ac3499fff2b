import { closeSync, openSync, readFileSync, readSync } from 'node:fs';
import path from 'node:path';
import { HEAD_BYTES } from '$lib/core/read/decode';
import { DelimitedReader, proposeRecipe, type DelimitedReading } from '$lib/core/read/delimited';
import type { ColumnType } from '$lib/core/table/column';
import { Recipe } from '$lib/core/read/recipe';
import { fitRecipe, retyped } from '$lib/core/read/givenRecipe';
import { settle, type SettledReading } from '$lib/core/read/settle';
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

/** A file that can be read from its start as often as needed. */
interface Source {
  readonly head: Uint8Array;
  readonly whole: boolean;
  /** All of it, in chunks. */
  chunks(): Iterable<Uint8Array>;
}

/** What the call says about how a file is read. */
export interface ReadAs {
  /** As it stands; else the file gets one by itself. */
  readonly recipe: Recipe | null;
  readonly types: ReadonlyMap<string, ColumnType>;
  /** What of the recipe's columns that the file has not. */
  readonly missing: 'refuse' | 'blank';
}

/** Nothing is said: the file is read as the intake would propose. */
export const BY_ITSELF: ReadAs = { recipe: null, types: new Map(), missing: 'refuse' };

/** A list that was read, and headings of the file that a given recipe does not take. */
export interface ReadList extends SettledReading {
  readonly leftOut: readonly string[];
}

/** Reads a delimited file. @throws Failed, IntakeError */
export function readList(file: string, as: ReadAs): ReadList {
  if (file !== '-') return withFile(file, (source) => readFrom(source, as));
  const bytes = readBytes(file);
  const whole = bytes.length <= HEAD_BYTES;
  return readFrom({ head: bytes.subarray(0, HEAD_BYTES), whole, chunks: () => [bytes] }, as);
}

function readFrom(source: Source, { recipe: given, types, missing }: ReadAs): ReadList {
  const { head, whole } = source;
  const { recipe: found, leftOut } = given
    ? fitRecipe(given, head, whole, missing)
    : { recipe: proposeRecipe(head, whole), leftOut: [] };
  const recipe = retyped(found, types);
  // What was given stands, whatever the file shows.
  const fixed = recipe.columns.filter((c, k) => given || c !== found.columns[k]);
  const steps = settle(recipe, new Set(fixed.map((c) => c.id)));
  for (let step = steps.next(); ; step = steps.next(readBy(source, step.value)))
    if (step.done) return { ...step.value, leftOut };
}

function readBy(source: Source, recipe: Recipe): DelimitedReading {
  const reader = new DelimitedReader(recipe);
  for (const chunk of source.chunks()) reader.push(chunk);
  reader.push(new Uint8Array(0), true);
  return reader.finish();
}

function withFile<T>(file: string, work: (source: Source) => T): T {
  let handle: number;
  try {
    handle = openSync(file, 'r');
  } catch (error) {
    throw new Failed(`“${file}” cannot be read: ${error instanceof Error ? error.message : error}`);
  }
  const read = (size: number, at: number): Uint8Array => {
    const bytes = new Uint8Array(size);
    return bytes.subarray(0, readSync(handle, bytes, 0, size, at));
  };
  function* chunks(): Generator<Uint8Array> {
    for (let at = 0; ;) {
      const chunk = read(CHUNK, at);
      if (chunk.length === 0) return;
      at += chunk.length;
      yield chunk;
    }
  }
  try {
    const head = read(HEAD_BYTES, 0);
    return work({ head, whole: head.length < HEAD_BYTES, chunks });
  } finally {
    closeSync(handle);
  }
}

/** What a file is called without its folder and ending. */
export const listName = (file: string): string =>
  file === '-' ? 'The list' : path.basename(file).replace(/\.[^.]+$/, '');
