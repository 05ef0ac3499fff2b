import { warn } from '../warnings';
import { TallyRefused } from '../../errors';
import { bestOf, fitMethod, holdOutLength, tryMethods } from '../../forecast/holdOut';
import { isFitted, METHOD_WORDS, METHODS } from '../../forecast/method';
import type { Steps } from '../../steps/steps';
import { counted } from '../../table/format';
import { periodLabel } from '../../table/period';
import { tableOf } from '../answer';
import { selectionOf, type Base } from '../base';
import { measureColumn } from '../figure';
import { type TallyAnswer, type TallyKind } from '../kind';
import { checkSeries, computeSeries, visitSeries } from '../series';
import { doubts } from './doubts';
import { forecastFact } from './fact';
import { forecastSentence } from './sentence';
import type { ForecastSpec } from './spec';
import { pointsOf } from './points';
import { ahead, methodTable, parameterTable, past } from './tables';

export const forecastKind: TallyKind<ForecastSpec> = {
  check(spec, faults, path) {
    checkSeries(spec.series, faults, `${path}.series`);
    const { parameters, method } = spec;
    if (method === 'damped' && parameters.phi === 1)
      faults.add(
        `${path}.parameters.phi`,
        'A damping of 1 does not damp.',
        'Take one under 1, or the method "trend".',
      );
  },
  visit: (spec, visitor, path) => ({
    ...spec,
    series: visitSeries(spec.series, visitor, `${path}.series`),
  }),
  compute: computeForecast,
  sentence: forecastSentence,
  fact: forecastFact,
};

function* computeForecast(base: Base, spec: ForecastSpec): Steps<TallyAnswer> {
  const series = yield* computeSeries(base, selectionOf(base, spec.scope), spec.series, [
    spec.series.measure,
  ]);
  const standing = pointsOf(series, spec);
  const { points } = standing;
  const n = points.y.length;
  const label = (k: number): string =>
    periodLabel(series.first + k, series.period, series.calendar);
  yield undefined;
  const heldOut = spec.holdOut ?? holdOutLength(points);
  const tried = tryMethods(
    points,
    spec.method === 'best' ? METHODS : [spec.method],
    spec.parameters,
    heldOut,
  );
  yield undefined;
  const method = spec.method === 'best' ? bestOf(tried) : spec.method;
  if (method === null)
    throw new TallyRefused(
      `No method can be fitted: the series has ${counted(n, 'point')}. Take a shorter period or more data.`,
    );
  const fitted = fitMethod(method, points, spec.parameters);
  if (!isFitted(fitted))
    throw new TallyRefused(`The ${METHOD_WORDS[method]} cannot be fitted: ${fitted.why}`);
  const value = measureColumn(spec.series.measure, base.table, 'value');
  return {
    tables: [
      ahead(spec, standing, fitted, value),
      past(spec, standing, fitted, value, heldOut),
      methodTable(tried, method, value),
      parameterTable(method, fitted),
    ].map(tableOf),
    warnings: [
      warn(
        'stands-on',
        `It stands on ${counted(n, 'point')}, from ${label(0)} to ${label(n - 1)}.`,
      ),
      ...(spec.method === 'best'
        ? [
            warn(
              'chosen',
              `Chosen: ${METHOD_WORDS[method]}, with the least mean absolute error on the last ${counted(heldOut, 'point')} held out.`,
            ),
          ]
        : []),
      ...doubts(standing, fitted, spec, label),
    ],
  };
}
