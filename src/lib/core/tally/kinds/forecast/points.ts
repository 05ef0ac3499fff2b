import { TallyRefused } from '../../../errors';
import type { Series as Points } from '../../../forecast/method';
import { counted } from '../../../table/format';
import { PERIODS_IN_YEAR, periodLabel } from '../../../table/period';
import type { Series } from '../../series/series';
import type { ForecastSpec } from './spec';

/** The points a forecast stands on: periods first..first+n-1 of the series. */
export interface ForecastPoints {
  readonly points: Points;
  readonly series: Series;
  readonly filled: number;
}

/** The series without a partial last period, its gaps treated as asked. @throws TallyRefused */
export function pointsOf(series: Series, spec: ForecastSpec): ForecastPoints {
  const keep =
    series.partialLast && spec.incompleteLast === 'leaveOut' ? series.length - 1 : series.length;
  const y = series.values.slice(0, keep);
  const empty = (k: number): boolean => y[k] !== y[k] || series.records[k] === 0;
  const gaps = Array.from(y.keys()).filter(empty);
  if (gaps.length > 0 && spec.gaps === 'refuse')
    throw new TallyRefused(
      `${counted(gaps.length, 'period')} ${gaps.length === 1 ? 'has' : 'have'} no figure, the first ${periodLabel(series.first + gaps[0], series.period, series.calendar)}. Choose whether gaps count as 0 or are interpolated, or take a longer period.`,
    );
  for (const k of gaps) y[k] = spec.gaps === 'zero' ? 0 : NaN;
  if (spec.gaps === 'interpolate') interpolate(y);
  const season =
    spec.season ?? PERIODS_IN_YEAR[series.period] ?? (series.period === 'week' ? 52 : 7);
  return { points: { y, season }, series, filled: gaps.length };
}

/** Straight between the neighbours that are there; both ends have records. */
function interpolate(y: Float64Array): void {
  let from = -1;
  for (let k = 0; k < y.length; k++) {
    if (y[k] !== y[k]) continue;
    for (let j = from + 1; j < k; j++)
      y[j] = from < 0 ? y[k] : y[from] + ((y[k] - y[from]) * (j - from)) / (k - from);
    from = k;
  }
  for (let j = from + 1; j < y.length; j++) y[j] = from < 0 ? 0 : y[from];
}
