import { readAsk } from '$lib/core/ask/badAsk';
import { benchOf } from '$lib/core/bench/benchOf';
import type { Bench } from '$lib/core/bench/document';
import { isBench, upgradeBench } from '$lib/core/bench/upgrade';
import { z } from 'zod';
import { Misused } from './exit';
import { readJson } from './input';

/** A bench saved from the page, or an ask, whose tallies make its tray. @throws Misused */
export function readBench(file: string): Bench {
  const document = readJson(file, 'bench');
  if (!isBench(document)) return benchOf(readAsk(document), 0);
  try {
    return upgradeBench(document);
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    const [{ path, message }] = error.issues;
    throw new Misused(`“${file}” is no bench: ${path.join('.')}: ${message}`);
  }
}
