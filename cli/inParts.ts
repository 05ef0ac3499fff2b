import { statSync } from 'node:fs';
import { AskRefused, TallyRefused } from '$lib/core/errors';
import { needsWhole, PartsAnswer } from '$lib/core/ask/answerParts';
import type { Ask } from '$lib/core/ask/ask';
import type { AskResult } from '$lib/core/ask/result';
import { DelimitedReader, type ReadThrough } from '$lib/core/read/delimited';
import { examineThrough } from '$lib/core/read/examine';
import type { Recipe } from '$lib/core/read/recipe';
import { settle } from '$lib/core/read/settle';
import { finish } from '$lib/core/task/task';
import type { Table } from '$lib/core/table/table';
import { Failed, Misused } from './exit';
import { listName, openDelimited, type Chunks, type ReadAs } from './input';
import { noteDoubts } from './readChecked';

/** Files from this size on are read in stretches where the ask allows it. */
const LARGE = 512 * 1024 ** 2;

/** Records of a stretch. */
const STRETCH = 1 << 17;

export const IN_PARTS = ['auto', 'yes', 'no'] as const;
export type InParts = (typeof IN_PARTS)[number];

/** A file that was read through, and what it came to. */
interface Answering extends ReadThrough {
  readonly answer: PartsAnswer;
}

/**
 * Answers an ask about a file of delimited text of which only a stretch is in memory at a time.
 * @returns null where the file is no such text, is small, or the ask needs the list as a whole
 * @throws BadAsk, Failed, and Misused where parts are wanted and cannot be
 */
export function reckonInParts(
  file: string,
  as: ReadAs,
  ask: Ask,
  others: ReadonlyMap<string, Table>,
  wanted: InParts,
): AskResult | null {
  if (wanted === 'no') return null;
  const isLarge = file !== '-' && (statSync(file, { throwIfNoEntry: false })?.size ?? 0) >= LARGE;
  if (wanted === 'auto' && !isLarge) return null;
  const whole = needsWhole(ask);
  if (whole) return refused(whole, wanted);
  return openDelimited(file, as, (recipe, fixed, chunks) => {
    const steps = settle<Answering>(recipe, fixed);
    try {
      for (let step = steps.next(); ;) {
        if (step.done) return answered(file, as, step.value);
        step = steps.next(readThrough(chunks, step.value, listName(file), ask, others));
      }
    } catch (error) {
      // Which columns a tally needs is known with the first stretch, how many rows they make on the way.
      const isTold =
        error instanceof TallyRefused || (error instanceof AskRefused && error.path === 'tallies');
      if (isTold) return refused(error.message, wanted);
      throw error;
    }
  });
}

function refused(why: string, wanted: InParts): null {
  if (wanted === 'yes')
    throw new Misused(
      `The list cannot be read in stretches: ${why.replace(/\.$/, '')}. Leave --in-parts out.`,
    );
  return null;
}

function readThrough(
  chunks: Chunks,
  recipe: Recipe,
  name: string,
  ask: Ask,
  others: ReadonlyMap<string, Table>,
): Answering {
  const reader = new DelimitedReader(recipe);
  const answer = new PartsAnswer({ name, recipe, others }, ask);
  for (const chunk of chunks()) {
    reader.push(chunk);
    if (reader.pending >= STRETCH) finish(answer.add(reader.take()));
  }
  reader.push(new Uint8Array(0), true);
  finish(answer.add(reader.take()));
  return { ...reader.readThrough(), answer };
}

/** @throws Failed where a doubt asks for an answer, or the data do not allow a tally */
function answered(
  file: string,
  as: ReadAs,
  { recipe, reading }: { readonly recipe: Recipe; readonly reading: Answering },
): AskResult {
  noteDoubts(file, as, recipe, examineThrough(recipe, reading), [
    'It was read in stretches: records that stand twice, totals inside the list, and values of another kind than the rest were not looked for.',
  ]);
  try {
    return reading.answer.finish();
  } catch (error) {
    if (error instanceof AskRefused) throw new Failed(error.message);
    throw error;
  }
}
