import { answerAsk } from '$lib/core/ask/answerAsk';
import { countsInWords } from '$lib/core/ask/countsInWords';
import { AnyFigureRecord, figureWords } from '$lib/core/bench/figureRecord';
import { AskRefused, NoSuchFigure } from '$lib/core/errors';
import { finish } from '$lib/core/task/task';
import { tablePrint } from '$lib/core/table/print';
import { figureText } from '$lib/core/tally/answer/figureText';
import { behind } from '$lib/core/tally/behind/behind';
import { Disagrees, Failed, Misused } from './exit';
import { readJson, readRecipe } from './input';
import { write } from './output';
import { listsNamed, type ListOptions } from './listsNamed';
import { readChecked } from './readChecked';

export interface VerifyOptions extends ListOptions {
  readonly data: string;
}

/**
 * Computes a recorded figure again from its file, and says whether it is the same.
 * @throws Misused, Failed, and Disagrees where the list or the figure is another
 */
export async function verify(file: string, options: VerifyOptions): Promise<void> {
  const parsed = AnyFigureRecord.safeParse(readJson(file, 'record'));
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    throw new Misused(`“${file}” is no record of a figure: ${path.join('.')}: ${message}`);
  }
  const { words, shown, list, ask, place, figure, records } = parsed.data;
  const { table, recipe } = await readChecked(options.data, {
    recipe: readRecipe(list.recipe),
    types: new Map(),
    missing: 'refuse',
  });
  const others = await listsNamed(options.list);
  for (const [name, source] of Object.entries(ask.lists))
    if (!others.has(name) && source.tally === undefined && source.frozen === undefined)
      throw new Misused(`The figure looks at the list “${name}”. Give it: --list "${name}=FILE".`);
  const same = finish(tablePrint(table)) === list.print && table.length === list.records;
  const found = again();
  const isFigure =
    found.figure === figure &&
    found.records === records &&
    found.words === words &&
    found.shown === shown;
  const told = [
    same
      ? `The list is the same: ${list.records} records of ${list.name}.`
      : `The list is another: ${table.length} records, where ${list.records} of ${list.name} were read.`,
    isFigure
      ? `The figure is the same: ${words} is ${shown}, from ${records} records.`
      : `The figure is another: recorded is ${words}: ${shown} (${figure}) from ${records} records; it is ${found.words}: ${found.shown} (${found.figure}) from ${found.records}.`,
    ...found.counts,
  ];
  write(`${told.map(printable).join('\n')}\n`, undefined);
  if (!same || !isFigure) throw new Disagrees('The figure is not verified.');

  function again(): Again {
    try {
      const { answers, result } = finish(
        answerAsk({ name: list.name, table, recipe, others }, ask),
      );
      const [{ answer, input }] = answers;
      const behindIt = finish(behind(input, answer, place, ask.formats));
      const { column, deviation } = behindIt;
      // A mean recorded by an earlier version stands without its deviation.
      const bare = figureText(column, behindIt.figure, ask.formats);
      return {
        figure: behindIt.figure,
        words: figureWords(behindIt),
        shown: shown === bare ? bare : figureText(column, behindIt.figure, ask.formats, deviation),
        records: behindIt.records.length,
        counts: countsInWords(result),
      };
    } catch (error) {
      if (error instanceof NoSuchFigure)
        return { figure: 'none', words: 'no such figure', shown: 'none', records: 0, counts: [] };
      if (error instanceof AskRefused) throw new Failed(error.message);
      throw error;
    }
  }
}

/** What the figure of a record comes to now, and what counts, in words. */
interface Again {
  readonly figure: unknown;
  readonly words: string;
  readonly shown: string;
  readonly records: number;
  readonly counts: readonly string[];
}

/** What steers a terminal, or turns the order of its letters. */
const STEERING = /[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g;

/** A line that a record brings: nothing in it steers the terminal that it is printed on. */
const printable = (line: string): string => line.replace(STEERING, '\ufffd');
