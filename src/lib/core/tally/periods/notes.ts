import { counted } from '../../table/format';
import { periodLabel, type Calendar } from '../../table/period';
import { warn, type Warning } from '../warnings';
import { baseOf } from './followColumns';
import type { Level } from './level';
import type { PeriodsSpec } from './spec';

/** What the reader of the periods must know: parts of periods, gaps, records without a date. */
export function notes(
  levels: readonly Level[],
  undated: number,
  calendar: Calendar,
  name: string,
): Warning[] {
  const out: Warning[] = [];
  const finest = levels[levels.length - 1];
  const label = (k: number): string => periodLabel(finest.first + k, finest.period, calendar);
  if (finest.partial.partialFirst)
    out.push(warn('partial-first', `The data begin inside ${label(0)}: it is not a whole period.`));
  if (finest.partial.partialLast)
    out.push(
      warn(
        'partial-last',
        `The data end inside ${label(finest.records.length - 1)}: it is not a whole period.`,
      ),
    );
  const empty = finest.records.reduce((n, records) => n + Number(records === 0), 0);
  if (empty > 0)
    out.push(
      warn(
        'empty-periods',
        `${counted(empty, 'period')} ${empty === 1 ? 'has' : 'have'} no records.`,
      ),
    );
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
export function baseNote(
  spec: PeriodsSpec,
  levels: readonly Level[],
  calendar: Calendar,
): Warning[] {
  const base = spec.index?.base;
  const { first, period, records } = levels[levels.length - 1];
  const at = baseOf(base, first, period, calendar);
  if (base === undefined || (at >= 0 && at < records.length)) return [];
  return [
    warn(
      'no-index-base',
      `The base ${base} lies outside the periods counted, so there is no index.`,
    ),
  ];
}
