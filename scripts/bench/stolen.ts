import { existsSync, readFileSync } from 'node:fs';

/**
 * Seconds of processor time that the host of a virtual machine has taken from it since it started
 * (`steal` of /proc/stat, in hundredths); null where that is not told. While the host takes time, a
 * page stands still through nothing it does.
 */
export function stolenSeconds(): number | null {
  if (!existsSync('/proc/stat')) return null;
  const [line] = readFileSync('/proc/stat', 'utf8').split('\n');
  const steal = Number(line.split(/\s+/)[8]);
  return Number.isNaN(steal) ? null : steal / 100;
}
