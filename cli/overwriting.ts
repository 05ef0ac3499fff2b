import { realpathSync } from 'node:fs';
import { Misused } from './exit';

/** The file itself, whatever links lead to it; null where there is none. */
function fileAt(name: string): string | null {
  try {
    return realpathSync(name);
  } catch {
    return null;
  }
}

/**
 * Nothing that is read is written over: the file of `--out` is none of the files that are named beside it.
 * @param given all other arguments and values of options, `NAME=FILE` among them
 * @throws Misused
 */
export function refuseOverwriting(out: string | undefined, given: readonly unknown[]): void {
  const target = out === undefined || out === '-' ? null : fileAt(out);
  if (target === null) return;
  for (const value of given.flat()) {
    if (typeof value !== 'string') continue;
    const names = [value, value.slice(value.indexOf('=') + 1)];
    if (names.some((name) => fileAt(name) === target))
      throw new Misused(
        `--out “${out}” is a file that is read: it would be written over. Name another.`,
      );
  }
}
