import { closeSync, openSync, readFileSync, readSync } from 'node:fs';
import path from 'node:path';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import { DelimitedReader, type DelimitedReading } from '$lib/core/read/delimited';
import type { ColumnType } from '$lib/core/table/column';
import { Recipe } from '$lib/core/read/recipe';
import { fitRecipe, retyped } from '$lib/core/read/givenRecipe';
import type { Doubt } from '$lib/core/read/doubts';
import { OpenedFile } from '$lib/core/read/opened';
import type { TotalMark } from '$lib/core/read/totals';
import { settle, type SettledReading } from '$lib/core/read/settle';
import { detectForm } from '$lib/core/read/decode/detect';
import { decodeFile, type PartWanted } from '$lib/core/read/decode/decode';
import { Failed, Misused } from './exit';
import { connectionIn, isSqlite, readConnection, readSqlite, type FromDatabase } from './database';

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

/** All of a file in chunks, from its start as often as needed. */
export type Chunks = () => Iterable<Uint8Array>;

/** A file that is open. */
interface OpenHandle {
  readonly head: Uint8Array;
  /** Whether the head is all of it. */
  readonly whole: boolean;
  readonly chunks: Chunks;
}

/** What the call says about how a file is read. */
export interface ReadAs {
  /** As it stands; else the file gets one by itself. */
  readonly recipe: Recipe | null;
  readonly types: ReadonlyMap<string, ColumnType>;
  /** What of the recipe's columns that the file has not. */
  readonly missing: 'refuse' | 'blank';
  /** The file of a package, the sheet of a workbook; found by itself unless given. */
  readonly wanted?: PartWanted;
  /** What of a database is read. */
  readonly database?: FromDatabase;
}

/** Nothing is said: the file is read as the intake would propose. */
export const BY_ITSELF: ReadAs = { recipe: null, types: new Map(), missing: 'refuse' };

/** A list that was read, and headings of the file that a given recipe does not take. */
export interface ReadList extends SettledReading {
  readonly leftOut: readonly string[];
  /** What is doubtful about the file besides what its cells tell. */
  readonly doubts: readonly Doubt[];
  /** Records that a sheet marks as totals. */
  readonly marks: ReadonlyMap<number, TotalMark>;
}

/** Bytes that a packed file may unfold to. */
const UNFOLDED = 4 * 1024 ** 3;

/**
 * Reads a file, whatever its form, or a database that is kept under a name (`connection:ferry`).
 * @throws Failed, IntakeError, and Misused where a part of it is named that such a file has not
 */
export async function readList(file: string, as: ReadAs): Promise<ReadList> {
  const connection = connectionIn(file);
  if (connection !== null)
    return readOpened(await readConnection(connection, as.database, as.recipe?.source), as);
  if (file !== '-') {
    // Delimited text is read piece by piece, a database where it lies; all else is taken whole.
    const read = withFile(file, (source) => {
      const { head, whole } = source;
      if (isSqlite(head)) return readOpened(readSqlite(file, as.database, as.recipe?.source), as);
      refuseDatabase(as);
      return detectForm(head) === 'delimited'
        ? readFrom(OpenedFile.delimited(head, whole), source.chunks, notPacked(as))
        : null;
    });
    if (read) return read;
  }
  refuseDatabase(as);
  const bytes = readBytes(file);
  if (detectForm(bytes) === 'delimited') {
    const opened = OpenedFile.delimited(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES);
    return readFrom(opened, () => [bytes], notPacked(as));
  }
  const wanted = as.wanted ?? as.recipe?.source ?? {};
  return readOpened(OpenedFile.unfolded(await decodeFile(bytes, UNFOLDED, wanted)), as);
}

const readOpened = (opened: OpenedFile, as: ReadAs): ReadList =>
  readFrom(opened, () => [opened.text ?? new Uint8Array(0)], as);

/** @throws Misused for a table or a query of what is no database */
function refuseDatabase({ database }: ReadAs): void {
  if (database) throw new Misused('--table and --query are of a database, which this file is not.');
}

/** @throws Misused for a sheet or a file of what is neither workbook nor package */
function notPacked(as: ReadAs): ReadAs {
  if (as.wanted)
    throw new Misused(
      '--sheet and --block are of a workbook, --member and --head of a zip package, which this file is not.',
    );
  return as;
}

function readFrom(opened: OpenedFile, chunks: Chunks, as: ReadAs): ReadList {
  const { recipe, fixed, leftOut } = begunWith(opened, as);
  const steps = settle(recipe, fixed);
  const read = (by: Recipe): DelimitedReading => opened.typed(by) ?? readBy(chunks, by);
  for (let step = steps.next(); ; step = steps.next(read(step.value)))
    if (step.done)
      return {
        ...step.value,
        leftOut,
        doubts: opened.doubts(step.value.recipe),
        marks: opened.marks(step.value.recipe),
      };
}

/** The recipe that a file is begun with, and the columns whose recipe stands whatever the file shows. */
export function begunWith(
  opened: OpenedFile,
  { recipe: given, types, missing }: ReadAs,
): { recipe: Recipe; fixed: ReadonlySet<string>; leftOut: readonly string[] } {
  const { recipe: found, leftOut } = given
    ? fitRecipe(given, opened, missing)
    : { recipe: opened.propose(), leftOut: [] };
  const recipe = retyped(found, types);
  const fixed = recipe.columns.filter((c, k) => given || c !== found.columns[k]);
  return {
    recipe,
    fixed: new Set([...fixed.map((c) => c.id), ...opened.decided(recipe)]),
    leftOut,
  };
}

/**
 * Opens a file of delimited text, to be read as often as needed.
 * @returns null where it is of another form
 * @throws Failed, IntakeError
 */
export function openDelimited<T>(
  file: string,
  as: ReadAs,
  work: (recipe: Recipe, fixed: ReadonlySet<string>, chunks: Chunks) => T,
): T | null {
  if (file === '-' || connectionIn(file) !== null) return null;
  return withFile(file, ({ head, whole, chunks }) => {
    if (isSqlite(head) || as.database || as.wanted || detectForm(head) !== 'delimited') return null;
    const { recipe, fixed } = begunWith(OpenedFile.delimited(head, whole), as);
    return work(recipe, fixed, chunks);
  });
}

function readBy(chunks: Chunks, recipe: Recipe): DelimitedReading {
  const reader = new DelimitedReader(recipe);
  for (const chunk of chunks()) reader.push(chunk);
  reader.push(new Uint8Array(0), true);
  return reader.finish();
}

/** The first bytes of a file; none of standard input, which is read once. @throws Failed */
export const headOfFile = (file: string): Uint8Array =>
  file === '-' ? new Uint8Array(0) : withFile(file, ({ head }) => head);

function withFile<T>(file: string, work: (open: OpenHandle) => T): T {
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
  file === '-' ? 'The list' : (connectionIn(file) ?? path.basename(file).replace(/\.[^.]+$/, ''));
