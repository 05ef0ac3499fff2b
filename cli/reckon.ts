import { AskRefused } from '$lib/core/errors';
import path from 'node:path';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { isOfResult } from '$lib/core/ask/resultLists';
import { readAsk } from '$lib/core/ask/badAsk';
import { LEFT_OUT, type Ask } from '$lib/core/ask/ask';
import type { AskResult } from '$lib/core/ask/result';
import type { AskedList } from '$lib/core/ask/resolve';
import { finish } from '$lib/core/task/task';
import type { Table } from '$lib/core/table/table';
import { formOfName, OUT_FORMS, type OutForm } from '$lib/core/write/forms';
import { resultFile } from '$lib/core/write/resultFile';
import { dialectOf, type DialectOptions } from './dialect';
import { Failed, Misused } from './exit';
import { BY_ITSELF, listName, readJson } from './input';
import { note, write, writeFile } from './output';
import { refuseOverwriting } from './overwriting';
import { IN_PARTS, reckonInParts, type InParts } from './inParts';
import { reckonLeftThere } from './leftThere';
import { readAs, type ReadOptions } from './readAs';
import { readWithAdded, type AddOptions } from './addFiles';
import { readChecked } from './readChecked';
import { wished } from './wished';

export interface ReckonOptions extends ReadOptions, AddOptions, DialectOptions {
  readonly data: string;
  readonly ask?: string;
  /** In place of an ask: the words of a wish. */
  readonly wish?: string;
  /** Writes the ask that the wish means, in place of its answer. */
  readonly explain?: boolean;
  /** Whether the file is read in stretches: `yes`, `no`, or by its size. */
  readonly inParts?: string;
  readonly out?: string;
  readonly format?: string;
  /** What of the answer is left out, by commas. */
  readonly leaveOut?: string;
}

/** Reads a file, answers an ask about it, and writes the results. @throws BadAsk, Failed, Misused */
export async function reckon(options: ReckonOptions): Promise<void> {
  if ((options.ask === undefined) === (options.wish === undefined))
    throw new Misused('Give the ask by --ask FILE, or a wish by --wish "fares by vessel".');
  if (options.wish !== undefined) return reckonWish(options, options.wish);
  if (options.ask === undefined) return;
  if (options.data === '-' && options.ask === '-')
    throw new Misused('Only one of --data and --ask can come from standard input.');
  const form = formFor(options);
  const dialect = dialectOf(options);
  const ask = leaner(readAsk(readJson(options.ask, 'ask')), options.leaveOut);
  const folder = options.ask === '-' ? '.' : path.dirname(options.ask);
  const others = await otherLists(ask, folder, options.out);
  const parts = partsWanted(options);
  if (options.add.length && parts === 'yes') note('Files that are added are read as a whole.');
  const inParts = options.add.length
    ? null
    : ((parts === 'yes'
        ? await reckonLeftThere(options.data, readAs(options), ask, others)
        : null) ?? reckonInParts(options.data, readAs(options), ask, others, parts));
  if (inParts) return writeFile(await resultFile(inParts, form, dialect), options.out);
  const { table, recipe: read } = await readWithAdded(options);
  const result = answered({ name: listName(options.data), table, recipe: read, others }, ask);
  writeFile(await resultFile(result, form, dialect), options.out);
}

/** Answers a wish: the sentence that it came to, then its table. @throws Misused, Failed */
async function reckonWish(options: ReckonOptions, wish: string): Promise<void> {
  const dialect = dialectOf(options);
  const form = formFor({ ...options, format: options.format ?? (options.out ? undefined : 'md') });
  const { table, recipe } = await readWithAdded(options);
  const name = listName(options.data);
  const ask = wished(wish, table, name);
  if (options.explain) {
    write(`${JSON.stringify(ask, null, 2)}\n`, options.out);
    return;
  }
  const result = answered({ name, table, recipe, others: new Map() }, ask);
  writeFile(await resultFile(result, form, dialect), options.out);
}

/** @throws Misused */
function partsWanted({ inParts = 'auto' }: ReckonOptions): InParts {
  const wanted = IN_PARTS.find((name) => name === inParts);
  if (!wanted) throw new Misused(`--in-parts is ${IN_PARTS.join(', ')}, not “${inParts}”.`);
  return wanted;
}

/** The form that is named, or that the file's ending says; JSON where nothing says one. @throws Misused */
export function formFor({
  format,
  out,
}: {
  readonly format?: string;
  readonly out?: string;
}): OutForm {
  if (format === undefined) return (out === undefined ? null : formOfName(out)) ?? 'json';
  const form = OUT_FORMS.find((name) => name === format);
  if (!form) throw new Misused(`The format is one of ${OUT_FORMS.join(', ')}, not “${format}”.`);
  return form;
}

/** The ask with more left out of its answer. @throws Misused */
function leaner(ask: Ask, words: string | undefined): Ask {
  const more = (words?.split(',') ?? []).map((word) => {
    const part = LEFT_OUT.find((name) => name === word.trim());
    if (!part)
      throw new Misused(
        `--leave-out takes ${LEFT_OUT.join(' and ')}, with a comma, not “${word}”.`,
      );
    return part;
  });
  return { ...ask, leaveOut: [...new Set([...ask.leaveOut, ...more])] };
}

function answered(list: AskedList, ask: Ask): AskResult {
  try {
    return finish(answerAsk(list, ask)).result;
  } catch (error) {
    if (error instanceof AskRefused) throw new Failed(error.message);
    throw error;
  }
}

/** Lists that the ask names by file, from the folder of the ask. @throws Misused */
async function otherLists(
  ask: Ask,
  folder: string,
  target: string | undefined,
): Promise<Map<string, Table>> {
  const out = new Map<string, Table>();
  for (const [name, source] of Object.entries(ask.lists)) {
    if (isOfResult(source)) continue;
    if (source.file === undefined)
      throw new Misused(
        `lists.${name}.file: This is missing. The command line reads other lists from files.`,
      );
    const file = path.resolve(folder, source.file);
    refuseOverwriting(target, [file]);
    const read = await readChecked(file, {
      ...BY_ITSELF,
      recipe: source.recipe ?? null,
    });
    out.set(name, read.table);
  }
  return out;
}
