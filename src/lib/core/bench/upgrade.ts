import { z } from 'zod';
import { percentForShares } from '../ask/upgrade';
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
    isFirst ? fromVersion1(BenchVersion1.parse(percentForShares(document))) : document,
  );
}

/** A bench of any version, as a body or a file brings it. */
export const AnyBench: z.ZodType<Bench> = z.unknown().transform(upgradeBench);
