import { z } from 'zod';
import { numbersFromOne, percentForShares, upgraded } from '../ask/upgrade';
import { Bench } from './document';
import { BenchVersion1, fromVersion1 } from './version1';

/**
 * A bench's document of any version as one of the newest. The only parser of stored benches.
 * @throws ZodError where it is no bench
 */
export function upgradeBench(document: unknown): Bench {
  const isFirst =
    typeof document === 'object' &&
    document !== null &&
    'version' in document &&
    document.version === 1;
  return Bench.parse(
    isFirst
      ? fromVersion1(BenchVersion1.parse(numbersFromOne(percentForShares(document))))
      : upgraded(document),
  );
}

/** Whether a document is meant as a bench, and not as an ask. */
export const isBench = (document: unknown): boolean => isObject(document) && 'tray' in document;

/** A bench of any version, as a body or a file brings it. */
export const AnyBench: z.ZodType<Bench> = z.unknown().transform(upgradeBench);

/**
 * A bench from storage, where an earlier build may have written what nothing knows any more: such
 * keys are left out, so that what was stored still opens. Whatever comes from elsewhere is refused
 * for them.
 * @throws ZodError where it is no bench all the same
 */
export function storedBench(document: unknown): Bench {
  try {
    return upgradeBench(document);
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    const copy: unknown = structuredClone(document);
    for (const issue of error.issues)
      if (issue.code === 'unrecognized_keys') leaveOut(copy, issue.path, issue.keys);
    return upgradeBench(copy);
  }
}

function leaveOut(document: unknown, path: readonly PropertyKey[], keys: readonly string[]): void {
  let at: unknown = document;
  for (const part of path) at = isObject(at) ? at[String(part)] : undefined;
  if (isObject(at)) for (const key of keys) delete at[key];
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;
