import { AskRefused } from '$lib/core/errors';
import path from 'node:path';
import { answerAsk } from '$lib/core/ask/answer';
import { isOfResult } from '$lib/core/ask/resultLists';
import { readAsk } from '$lib/core/ask/badAsk';
import { LEFT_OUT, type Ask } from '$lib/core/ask/ask';
import { talliesOf, type AskResult } from '$lib/core/ask/result';
import type { AskedList } from '$lib/core/ask/stand';
import type { Doubt } from '$lib/core/read/doubts';
import type { Recipe } from '$lib/core/read/recipe';
import { examine } from '$lib/core/read/examine';
import { finish } from '$lib/core/steps/steps';
import { counted } from '$lib/core/table/format';
import type { Table } from '$lib/core/table/table';
import { resultsAsDelimited } from '$lib/core/write/resultFile';
import { Failed, Misused } from './exit';
import { BY_ITSELF, listName, readJson, readList, type ReadAs } from './input';
import { note, write } from './output';
import { readAs, type ReadOptions } from './readAs';

export interface ReckonOptions extends ReadOptions {
  readonly data: string;
  readonly ask: string;
  readonly out?: string;
  readonly format: string;
  /** What of the answer is left out, by commas. */
  readonly leaveOut?: string;
}

/** Reads a file, answers an ask about it, and writes the results. @throws BadAsk, Failed, Misused */
export function reckon(options: ReckonOptions): void {
  if (options.data === '-' && options.ask === '-')
    throw new Misused('Only one of --data and --ask can come from standard input.');
  if (options.format !== 'json' && options.format !== 'csv')
    throw new Misused(`The format is json or csv, not “${options.format}”.`);
  const ask = leaner(readAsk(readJson(options.ask, 'ask')), options.leaveOut);
  const { table, recipe: read } = readChecked(options.data, readAs(options));
  const others = otherLists(ask, options.ask === '-' ? '.' : path.dirname(options.ask));
  const result = answered({ name: listName(options.data), table, recipe: read, others }, ask);
  const text =
    options.format === 'json'
      ? `${JSON.stringify(result, null, 2)}\n`
      : resultsAsDelimited(talliesOf(result)).text;
  write(text, options.out);
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

/** The list of a file; what is doubtful goes to the notes, and what asks for an answer stops the run. */
function readChecked(file: string, as: ReadAs): { table: Table; recipe: Recipe } {
  const { recipe, reading, leftOut } = readList(file, as);
  const { doubts } = examine(recipe, reading);
  // What a recipe or a type says was decided by whoever wrote it.
  const decided = ({ column }: Doubt): boolean =>
    as.recipe !== null ||
    recipe.columns.some(
      ({ id, name }) => id === column && (as.types.has(id) || as.types.has(name)),
    );
  const asking = doubts.filter((d) => d.asks && !decided(d));
  if (asking.length)
    throw new Failed(
      `${asking.map((d) => d.says).join('\n')}\nAnswer it in a recipe: “tally check --data ${file}” writes one to begin from.`,
    );
  if (leftOut.length)
    note(
      `${listName(file)}: ${leftOut.map((c) => `“${c}”`).join(', ')} ${leftOut.length === 1 ? 'is' : 'are'} not in the recipe and left out.`,
    );
  if (doubts.length)
    note(
      `${listName(file)}: ${counted(doubts.length, 'doubt')}; “tally check” lists ${doubts.length === 1 ? 'it' : 'them'}.`,
    );
  return { table: reading.table, recipe };
}

/** Lists that the ask names by file, from the folder of the ask. @throws Misused */
function otherLists(ask: Ask, folder: string): Map<string, Table> {
  const out = new Map<string, Table>();
  for (const [name, source] of Object.entries(ask.lists)) {
    if (isOfResult(source)) continue;
    if (source.file === undefined)
      throw new Misused(
        `lists.${name}.file: This is missing. The command line reads other lists from files.`,
      );
    out.set(
      name,
      readChecked(path.resolve(folder, source.file), {
        ...BY_ITSELF,
        recipe: source.recipe ?? null,
      }).table,
    );
  }
  return out;
}
