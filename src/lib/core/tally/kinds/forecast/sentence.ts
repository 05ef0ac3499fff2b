import { METHOD_WORDS, METHODS } from '../../../forecast/method';
import { counted, givenNumber } from '../../../table/format';
import type { Names } from '../../kind/kind';
import { begun, type Part, type Slot } from '../../sentence/sentence';
import { seriesCalendar, seriesParts } from '../../series/seriesSlots';
import { optionalParts, type Option } from '../../sentence/optionalParts';
import { SEASON_BY_WORDS } from './seasonWords';
import { choiceSlot, numbersWords, numberSlot, scopeSlot } from '../../sentence/slots';
import type { ForecastSpec } from './spec';

type Parameters = ForecastSpec['parameters'];

const PARAMETER_WORDS = {
  alpha: 'the weight of the newest level (alpha)',
  beta: 'the weight of the newest trend (beta)',
  gamma: 'the weight of the newest season (gamma)',
  phi: 'the damping of the trend (phi)',
  k: 'how many last values the mean takes (k)',
} as const;
const parameterNames = ['alpha', 'beta', 'gamma', 'phi', 'k'] as const;

/** `Sum of Boarded by month of Sailed on, carried on for 12 periods by the method that …` */
export function forecastSentence(spec: ForecastSpec, names: Names): Part<ForecastSpec>[] {
  return begun<ForecastSpec>([
    ...seriesParts<ForecastSpec>(spec.series, names, (series) => ({ ...spec, series })),
    ', carried on for ',
    numberSlot<ForecastSpec>(
      'horizon',
      counted(spec.horizon, 'period'),
      spec.horizon,
      { least: 1, most: 600, whole: true, needed: true, name: 'Periods ahead' },
      (horizon) => ({ ...spec, horizon: horizon ?? spec.horizon }),
    ),
    ' by ',
    choiceSlot<ForecastSpec, ForecastSpec['method']>(
      'method',
      'Method',
      spec.method,
      [
        { value: 'best', label: 'the method that forecast its last part best' },
        ...METHODS.map((value) => ({
          value,
          label: `the ${METHOD_WORDS[value]}`.replace('the the', 'the'),
        })),
      ],
      (method) => ({ ...spec, method }),
    ),
    ...(spec.levels.length ? [', with bounds of '] : [', ']),
    {
      path: 'levels',
      name: 'Bounds',
      words: spec.levels.length
        ? `${numbersWords(spec.levels.map((l) => Number((l * 100).toPrecision(12))))} %`
        : 'without bounds',
      takes: {
        a: 'numbers',
        value: spec.levels.map((l) => Number((l * 100).toPrecision(12))),
        least: 1,
        most: 99.9,
        usual: [
          { label: '80 and 95 %', values: [80, 95] },
          { label: 'none', values: [] },
        ],
        set: (percents) => ({ ...spec, levels: percents.slice(0, 5).map((p) => p / 100) }),
      },
    },
    ...optionalParts<ForecastSpec>([
      optionalNumber(spec, 'season', 'periods in a season', 400),
      ...parameterNames.map((key) => parameter(spec, key, PARAMETER_WORDS[key])),
      {
        slot: choiceSlot<ForecastSpec, NonNullable<Parameters['seasonBy']>>(
          'parameters.seasonBy',
          'Seasons that multiply',
          spec.parameters.seasonBy ?? 'levelBefore',
          [
            { value: 'levelBefore', label: `${SEASON_BY_WORDS.levelBefore} (component form)` },
            { value: 'levelNow', label: `${SEASON_BY_WORDS.levelNow} (Winters)` },
          ],
          (seasonBy) => ({ ...spec, parameters: { ...spec.parameters, seasonBy } }),
        ),
        usual: (spec.parameters.seasonBy ?? 'levelBefore') === 'levelBefore',
      },
      {
        slot: choiceSlot<ForecastSpec, ForecastSpec['gaps']>(
          'gaps',
          'Periods without a figure',
          spec.gaps,
          [
            { value: 'refuse', label: 'periods without a figure refused' },
            { value: 'zero', label: 'periods without a figure taken as 0' },
            { value: 'interpolate', label: 'periods without a figure filled between neighbours' },
          ],
          (gaps) => ({ ...spec, gaps }),
        ),
        usual: spec.gaps === 'refuse',
      },
      {
        slot: choiceSlot<ForecastSpec, ForecastSpec['incompleteLast']>(
          'incompleteLast',
          'A last period covered in part',
          spec.incompleteLast,
          [
            { value: 'leaveOut', label: 'a last period covered in part left out' },
            { value: 'keep', label: 'a last period covered in part kept' },
          ],
          (incompleteLast) => ({ ...spec, incompleteLast }),
        ),
        usual: spec.incompleteLast === 'leaveOut',
      },
      optionalNumber(spec, 'holdOut', 'last points held out to measure by', 1000),
      ...seriesCalendar<ForecastSpec>(spec.series, (series) => ({ ...spec, series })),
      scopeSlot<ForecastSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

/** A number that is found unless it is given. */
function optionalNumber(
  spec: ForecastSpec,
  key: 'season' | 'holdOut',
  label: string,
  most: number,
): Option<ForecastSpec> {
  const { [key]: now, ...rest } = spec;
  const slot: Slot<ForecastSpec> = numberSlot<ForecastSpec>(
    key,
    now === undefined ? `${label}: as the data say` : `${now} ${label}`,
    now ?? null,
    { least: 1, most, whole: true, name: label },
    (next) => (next === null ? rest : { ...rest, [key]: next }),
  );
  return { slot, usual: now === undefined };
}

function parameter(
  spec: ForecastSpec,
  key: keyof typeof PARAMETER_WORDS,
  label: string,
): Option<ForecastSpec> {
  const now = spec.parameters[key];
  const slot = numberSlot<ForecastSpec>(
    `parameters.${key}`,
    now === undefined ? `${label}: found` : `${label} ${givenNumber(now)}`,
    now ?? null,
    key === 'k'
      ? { least: 1, most: 10_000, whole: true, name: label }
      : { least: key === 'phi' ? 0.01 : 0, most: 1, name: label },
    (next) => {
      const parameters: Parameters = { ...spec.parameters, [key]: next ?? undefined };
      return { ...spec, parameters };
    },
  );
  return { slot, usual: now === undefined };
}
