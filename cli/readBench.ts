import { readAsk } from '$lib/core/ask/badAsk';
import { isBenchFile, readBenchFile, type BenchRead } from '$lib/core/bench/benchFile';
import { benchOf } from '$lib/core/bench/benchOf';
import { z } from 'zod';
import { Misused } from './exit';
import { readJson, type ReadAs } from './input';

/** A bench saved from the page with its recipes, or an ask, whose tallies make its tray. @throws Misused */
export function readBench(file: string): BenchRead {
  const document = readJson(file, 'bench');
  if (!isBenchFile(document))
    return { doc: benchOf(readAsk(document), 0), recipe: null, recipes: {} };
  try {
    return readBenchFile(document);
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    const [{ path, message }] = error.issues;
    throw new Misused(`“${file}” is no bench: ${path.join('.')}: ${message}`);
  }
}

/** How a list is read by a bench: by the recipe that the call gives, or else by the one that the bench brings. */
export const readAsBench = <T extends ReadAs>(as: T, { recipe }: BenchRead): T =>
  as.recipe === null && recipe !== null && as.types.size === 0 && !as.wanted
    ? { ...as, recipe }
    : as;
