import type { Doubt } from '$lib/core/read/doubts';
import { examine } from '$lib/core/read/examine';
import type { Recipe } from '$lib/core/read/recipe';
import { counted } from '$lib/core/table/format';
import type { Table } from '$lib/core/table/table';
import { Failed } from './exit';
import { listName, readList, type ReadAs } from './input';
import { note } from './output';

/** The list of a file; what is doubtful goes to the notes, and what asks for an answer stops the run. @throws Failed */
export async function readChecked(
  file: string,
  as: ReadAs,
): Promise<{ table: Table; recipe: Recipe }> {
  const { recipe, reading, leftOut, doubts: ofFile, marks } = await readList(file, as);
  const doubts = [...examine(recipe, reading, marks).doubts, ...ofFile];
  const left = leftOut.length
    ? [
        `${leftOut.map((c) => `“${c}”`).join(', ')} ${leftOut.length === 1 ? 'is' : 'are'} not in the recipe and left out.`,
      ]
    : [];
  noteDoubts(file, as, recipe, doubts, left);
  return { table: reading.table, recipe };
}

/**
 * What is doubtful about a file goes to the notes; what asks for an answer stops the run.
 * @param more notes besides
 * @throws Failed
 */
export function noteDoubts(
  file: string,
  as: ReadAs,
  recipe: Recipe,
  doubts: readonly Doubt[],
  more: readonly string[],
): void {
  // What a recipe or a type says was decided by whoever wrote it.
  const decided = ({ column }: Doubt): boolean =>
    as.recipe !== null ||
    recipe.columns.some(
      ({ id, name }) => id === column && (as.types.has(id) || as.types.has(name)),
    );
  const asking = doubts.filter((d) => d.asks && !decided(d));
  if (asking.length)
    throw new Failed(
      `${asking.map((d) => d.words).join('\n')}\nAnswer it in a recipe: “tally check --data ${file}” writes one to begin from.`,
    );
  for (const words of more) note(`${listName(file)}: ${words}`);
  if (doubts.length)
    note(
      `${listName(file)}: ${counted(doubts.length, 'doubt')}; “tally check” lists ${doubts.length === 1 ? 'it' : 'them'}.`,
    );
}
