import { TallyRefused } from '../../../errors';
import { METHOD_WORDS } from '../../../forecast/method';
import { MEASURES } from '../../../measure/measure';
import { partOf, type Task } from '../../../task/task';
import { counted, showShare } from '../../../table/format';
import { periodLabel } from '../../../table/period';
import { tableOf } from '../../answer/answer';
import { selectionOf, type TallyInput } from '../../input/input';
import { measureColumn } from '../../answer/figure';
import { keyColumns } from '../../groups/keys';
import { type TallyAnswer, type TallyKind } from '../../kind/kind';
import type { FigureTable } from '../../answer/result';
import { checkSeries, computeSeries, visitSeries, type SeriesSet } from '../../series/series';
import { warn } from '../../trust/warnings';
import { carry, fitErrors, type Carried } from './carry';
import { doubts } from './doubts';
import { forecastFact } from './fact';
import { chosenTable, groupTable, sumTable, type GroupForecast } from './groupTables';
import { errorTable, methodTable } from './methodTables';
import { autocorrelationTable, parameterTable, termTable } from './partTables';
import { forecastSentence } from './sentence';
import type { ForecastSpec } from './spec';
import { ahead, past } from './tables';

export const forecastKind: TallyKind<ForecastSpec> = {
  inParts: () => true,
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
  shape: ({ series }) => (series.by.length ? { of: 'forecast', as: 'series', reach: [] } : null),
  drawnWhole: () => ['main', 'points'],
};

function* computeForecast(input: TallyInput, spec: ForecastSpec): Task<TallyAnswer> {
  const selection = selectionOf(input, spec.scope);
  const set = yield* partOf(computeSeries(input, selection, spec.series), 0, 0.1);
  const carried = yield* carry(set.whole, spec);
  const { observed, fitted, method, tried, heldOut } = carried;
  const n = observed.points.y.length;
  const { first, period, calendar } = set.whole;
  const label = (k: number): string => periodLabel(first + k, period, calendar);
  const value = measureColumn(spec.series.measure, input.table, 'value');
  const forecasts = yield* partOf(forecastGroups(set, spec), 0.1, 1);
  const labels = yield* keyColumns(input, spec.series.by, selection);
  const adds = MEASURES[spec.series.measure.kind].adds;
  const byGroups: FigureTable[] = forecasts.length
    ? [
        ...(adds ? [sumTable(spec, value, carried, forecasts)] : []),
        chosenTable(labels, value, forecasts),
        groupTable(spec, labels, value, forecasts),
      ]
    : [];
  // Cold code, one behind the other: with a pause after each.
  const tables: FigureTable[] = [];
  for (const made of [
    () => [ahead(spec, observed, fitted, value), ...byGroups],
    () => [methodTable(tried, method, value)],
    () => [
      errorTable(
        fitErrors(carried),
        { accuracy: tried.find((t) => t.method === method)?.accuracy ?? null, points: heldOut },
        value,
      ),
      parameterTable(method, fitted),
    ],
    () => [termTable(method, fitted, observed, value)],
    () => [past(spec, observed, fitted, value, heldOut)],
    () => [autocorrelationTable(fitted, observed)],
  ]) {
    tables.push(...made());
    yield undefined;
  }
  return {
    tables: tables.map(tableOf),
    warnings: [
      ...set.warnings,
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
      ...doubts(observed, fitted, spec, label),
      ...missingGroups(forecasts),
      ...(adds && forecasts.length ? [sumNote(spec, carried, forecasts)] : []),
    ],
  };
}

/** Each group carried on by itself; one that cannot be says why. */
function* forecastGroups({ groups }: SeriesSet, spec: ForecastSpec): Task<GroupForecast[]> {
  const out: GroupForecast[] = [];
  for (const [k, group] of groups.entries()) {
    try {
      out.push({ group, carried: yield* carry(group.series, spec), why: '' });
    } catch (error) {
      if (!(error instanceof TallyRefused)) throw error;
      out.push({ group, carried: null, why: error.message });
    }
    yield (k + 1) / groups.length;
  }
  return out;
}

/** Groups that are in no forecast must not be missing from the sum in silence. */
function missingGroups(forecasts: readonly GroupForecast[]): ReturnType<typeof warn>[] {
  const missing = forecasts.filter(({ carried }) => !carried);
  return missing.length
    ? [
        warn(
          'not-forecast',
          `${counted(missing.length, 'group')} ${missing.length === 1 ? 'is' : 'are'} not carried on and not in the sum of the groups’ forecasts: ${missing.map(({ group }) => group.path.join(' › ')).join(', ')}.`,
        ),
      ]
    : [];
}

/** How far the sum of the groups’ forecasts lies from the forecast of the sum, over all periods. */
function sumNote(
  spec: ForecastSpec,
  whole: Carried,
  forecasts: readonly GroupForecast[],
): ReturnType<typeof warn> {
  const { first } = whole.observed.series;
  const from = first + whole.observed.points.y.length;
  let ofGroups = 0;
  let ofSum = 0;
  for (let h = 0; h < spec.horizon; h++) {
    ofSum += whole.at(from + h);
    for (const { carried } of forecasts) ofGroups += carried?.at(from + h) ?? 0;
  }
  const share = Math.abs(ofGroups - ofSum) / Math.abs(ofSum);
  const far = showShare(share);
  const to = /[1-9]/.test(far)
    ? `${far} ${ofGroups >= ofSum ? 'more' : 'less'} than the forecast of the sum`
    : 'the forecast of the sum, to within 0.1 %';
  return warn(
    'sum-of-forecasts',
    `Over the ${counted(spec.horizon, 'period')} the groups’ forecasts add up to ${to}.`,
  );
}
