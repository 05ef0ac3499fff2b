import { listed, showCount } from '../table/format';
import type { SetAside } from './condition';

/** So many runs of records are named one by one. */
const NAMED = 12;

/**
 * What was set aside by hand, in words: `records 3 and 7 to 9`, `all where Cause is strike`.
 * @param names of columns by their ids
 */
export function setAsideWords(
  { records, values }: Pick<SetAside, 'records' | 'values'>,
  names: ReadonlyMap<string, string>,
): string[] {
  const runs = runsOf(records);
  const more = runs.length - NAMED;
  const named = runs
    .slice(0, NAMED)
    .map(([from, to]) =>
      from === to ? showCount(from) : `${showCount(from)} to ${showCount(to)}`,
    );
  const all = more > 0 ? [...named, `${showCount(more)} more`] : named;
  return [
    ...(records.length ? [`${records.length === 1 ? 'record' : 'records'} ${listed(all)}`] : []),
    ...values.map(
      ({ column, value }) => `all where ${names.get(column) ?? column} is ${value ?? 'blank'}`,
    ),
  ];
}

/** Numbers that follow one another, as their first and last. */
function runsOf(numbers: readonly number[]): [number, number][] {
  const runs: [number, number][] = [];
  for (const n of [...numbers].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last && n <= last[1] + 1) last[1] = n;
    else runs.push([n, n]);
  }
  return runs;
}
