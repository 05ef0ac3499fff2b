import { counted, showCount } from '../table/format';
import type { ListResult } from './result';

/** What counts, in lines: all, each step, set aside, counted; then every cell that was corrected. */
export function countsInWords({ list, counts }: ListResult): string[] {
  const steps = counts.rungs
    .filter(({ on }) => on)
    .map(({ words, removed }) => `${words}: ${showCount(removed)} narrowed out`);
  return [
    `${list.name}: ${counted(counts.all, 'record')}`,
    ...steps,
    ...(counts.setAside
      ? [
          `${counted(counts.setAside, 'record')} set aside by hand${counts.aside.length ? `: ${counts.aside.join('; ')}` : ''}`,
        ]
      : []),
    `${counted(counts.counted, 'record')} counted`,
    ...(counts.corrections.length
      ? [`${counted(counts.corrections.length, 'cell')} corrected by hand`, ...counts.corrections]
      : []),
  ];
}
