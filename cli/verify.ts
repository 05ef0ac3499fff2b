import { answerAsk } from '$lib/core/ask/answerAsk';
import { AnyFigureRecord } from '$lib/core/bench/figureRecord';
import { AskRefused, NoSuchFigure } from '$lib/core/errors';
import { finish } from '$lib/core/task/task';
import { tablePrint } from '$lib/core/table/print';
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
  const same = finish(tablePrint(table)) === list.print;
  const found = again();
  const told = [
    same
      ? `The list is the same: ${list.records} records of ${list.name}.`
      : `The list is another: ${table.length} records, where ${list.records} of ${list.name} were read.`,
    found.figure === figure && found.records === records
      ? `The figure is the same: ${words} is ${shown}, from ${records} records.`
      : `The figure is another: ${words} was ${figure} from ${records} records, and is ${found.figure} from ${found.records}.`,
  ];
  write(`${told.join('\n')}\n`, undefined);
  if (!same || found.figure !== figure || found.records !== records)
    throw new Disagrees('The figure is not verified.');

  function again(): { figure: unknown; records: number } {
    try {
      const [{ answer, input }] = finish(
        answerAsk({ name: list.name, table, recipe, others }, ask),
      ).answers;
      const { figure: now, records: behindIt } = finish(behind(input, answer, place));
      return { figure: now, records: behindIt.length };
    } catch (error) {
      if (error instanceof NoSuchFigure) return { figure: 'none', records: 0 };
      if (error instanceof AskRefused) throw new Failed(error.message);
      throw error;
    }
  }
}
