import type { Fitted } from '../../../forecast/method';
import { counted, showDecimals } from '../../../table/format';
import { warn, type Warning } from '../../trust/warnings';
import type { ForecastSpec } from './spec';
import type { ForecastPoints } from './points';

/** A last error beyond so many deviations of the others lies far off the fit. */
const FAR = 3;

/** What makes a forecast doubtful, in words. */
export function doubts(
  { points, series, filled }: ForecastPoints,
  fitted: Fitted,
  spec: ForecastSpec,
  label: (k: number) => string,
): Warning[] {
  const { y, season } = points;
  const n = y.length;
  const out: Warning[] = [];
  if (n < series.length)
    out.push(
      warn('partial-last', `${label(series.length - 1)} is covered only partly and left out.`),
    );
  if (series.partialFirst)
    out.push(warn('partial-first', `The data begin inside ${label(0)}: it is not a whole period.`));
  if (filled > 0)
    out.push(
      warn(
        'gaps-filled',
        `${counted(filled, 'period')} without a figure ${filled === 1 ? 'was' : 'were'} ${spec.gaps === 'zero' ? 'taken as 0' : 'interpolated'}.`,
      ),
    );
  if (n < 8)
    out.push(
      warn('few-points', `Only ${counted(n, 'point')}: too few to tell a trend from chance.`),
    );
  if (season > 1 && n < 2 * season)
    out.push(
      warn(
        'under-two-seasons',
        `Under two seasons of ${season} points: no season can be told from a trend.`,
      ),
    );
  const errors = Array.from(y, (v, t) => v - fitted.fitted[t]);
  const last = errors[n - 1];
  const others = errors.slice(0, -1).filter((e) => e === e);
  const sd = Math.sqrt(others.reduce((s, e) => s + e * e, 0) / others.length);
  if (others.length > 2 && Math.abs(last) > FAR * sd && sd > 0)
    out.push(
      warn(
        'last-far',
        `The last point, ${label(n - 1)}, lies ${showDecimals(Math.abs(last) / sd, 1)} times the usual error off the fit.`,
      ),
    );
  return out;
}
