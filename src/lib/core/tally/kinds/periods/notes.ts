import { counted } from '../../../table/format';
import { periodLabel } from '../../../table/period';
import { daysWords } from '../../series/daysWords';
import { warn, type Warning } from '../../trust/warnings';
import type { ComputedPeriods, ComputedSeries } from './compute';
import { baseOf } from './followColumns';
import type { LikePart } from './like';
import type { PeriodsSpec } from './spec';

/** `1 Jan 2026 to 30 Jun 2026 against 1 Jan 2025 to 30 Jun 2025.` */
export const likeWords = ({ own, other }: LikePart): string =>
  `${daysWords(own)} against ${daysWords(other)}.`;

/** What the reader of the periods must know: parts of periods, gaps, records without a date. */
export function notes(
  { levels, likes, calendar }: ComputedPeriods,
  whole: ComputedSeries,
  name: string,
): Warning[] {
  const out: Warning[] = [];
  const finest = levels[levels.length - 1];
  const label = (k: number, level = finest): string =>
    periodLabel(level.first + k, level.period, calendar);
  if (finest.partialFirst)
    out.push(warn('partial-first', `The data begin inside ${label(0)}: it is not a whole period.`));
  if (finest.partialLast)
    out.push(
      warn(
        'partial-last',
        `The data end inside ${label(finest.length - 1)}: it is not a whole period.`,
      ),
    );
  for (const like of likes)
    out.push(
      warn(
        'like-with-like',
        `${label(like.k, levels[like.level])} is compared like with like, ${likeWords(like)}`,
      ),
    );
  const empty = whole.levels[levels.length - 1].records.reduce(
    (n, records) => n + Number(records === 0),
    0,
  );
  if (empty > 0)
    out.push(
      warn(
        'empty-periods',
        `${counted(empty, 'period')} ${empty === 1 ? 'has' : 'have'} no records.`,
      ),
    );
  const undated = whole.undated.records;
  if (undated > 0)
    out.push(
      warn(
        'undated',
        `${counted(undated, 'record')} without ${name} ${undated === 1 ? 'belongs' : 'belong'} to no period.`,
      ),
    );
  return out;
}

/** An index on a period that is not counted is none everywhere: it must not pass in silence. */
export function baseNote(spec: PeriodsSpec, { levels, calendar }: ComputedPeriods): Warning[] {
  const base = spec.index?.base;
  const { first, period, length } = levels[levels.length - 1];
  const at = baseOf(base, first, period, calendar);
  if (base === undefined || (at >= 0 && at < length)) return [];
  return [
    warn(
      'no-index-base',
      `The base ${base} lies outside the periods counted, so there is no index.`,
    ),
  ];
}
