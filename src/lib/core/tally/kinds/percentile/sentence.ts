import { ordinal } from '../../../table/format';
import {
  DEFINITION_WORDS,
  DEFINITIONS,
  RANK_METHODS,
  RANK_WORDS,
} from '../../../measure/quantileDefinitions';
import type { Names } from '../../kind/kind';
import { begun, type Part } from '../../sentence/sentence';
import { optionalParts } from '../../sentence/optionalParts';
import {
  choiceSlot,
  columnSlot,
  fewSlot,
  keySlot,
  listedShort,
  numbersWords,
  scopeSlot,
} from '../../sentence/slots';
import type { PercentileSpec } from './spec';

const TENTHS = [10, 20, 30, 40, 50, 60, 70, 80, 90];

/** `The 10th, 50th and 90th percentiles of Delay, and where 20 stands, for each Route.` */
export function percentileSentence(spec: PercentileSpec, names: Names): Part<PercentileSpec>[] {
  const { percentiles, ranksOf } = spec;
  const rankMethod = choiceSlot<PercentileSpec, PercentileSpec['rankMethod']>(
    'rankMethod',
    'Percentile rank',
    spec.rankMethod,
    RANK_METHODS.map((value) => ({ value, label: `a rank is ${RANK_WORDS[value]}` })),
    (rankMethod) => ({ ...spec, rankMethod }),
  );
  const key = keySlot<PercentileSpec>(
    'key',
    spec.key ?? null,
    names,
    (next) => {
      const { key: _, ...rest } = spec;
      return next ? { ...rest, key: next } : rest;
    },
    { taken: [spec.column] },
  );
  return begun<PercentileSpec>([
    'the ',
    {
      path: 'percentiles',
      name: 'Percentiles',
      words: percentiles.length ? listedShort(percentiles.map(ordinal)) : 'percentiles…',
      ...(percentiles.length === 0 && { add: true }),
      takes: {
        a: 'numbers',
        value: percentiles,
        least: 0,
        most: 100,
        usual: [
          { label: '10, 25, 50, 75, 90', values: [10, 25, 50, 75, 90] },
          { label: 'quartiles', values: [25, 50, 75] },
          { label: 'every tenth', values: TENTHS },
        ],
        set: (next) => ({ ...spec, percentiles: next }),
      },
    },
    percentiles.length === 0
      ? ' of '
      : percentiles.length === 1
        ? ' percentile of '
        : ' percentiles of ',
    columnSlot<PercentileSpec>(
      'column',
      spec.column,
      names,
      ['number', 'date', 'datetime', 'time'],
      (column) => (column === null ? spec : { ...spec, column, ranksOf: [] }),
      { needed: true },
    ),
    ...(ranksOf.length ? [', and where '] : [' ']),
    {
      path: 'ranksOf',
      name: 'Values whose place is asked',
      words: ranksOf.length ? numbersWords(ranksOf) : 'and where a value stands…',
      ...(ranksOf.length === 0 && { add: true }),
      takes: {
        a: 'numbers',
        value: ranksOf,
        least: -1e300,
        most: 1e300,
        usual: [],
        set: (next) => ({ ...spec, ranksOf: next }),
      },
    },
    ...(ranksOf.length ? [ranksOf.length === 1 ? ' stands' : ' stand'] : []),
    ...(spec.key ? [', for each ', key] : [' ', key]),
    ...optionalParts<PercentileSpec>([
      {
        slot: choiceSlot<PercentileSpec, string>(
          'definition',
          'Definition',
          String(spec.definition),
          DEFINITIONS.map((d) => ({
            value: String(d),
            label: `definition ${d}`,
            note: DEFINITION_WORDS[d],
          })),
          (next) => ({ ...spec, definition: Number(next) }),
        ),
        usual: false,
        before: ', by ',
      },
      {
        slot: rankMethod,
        usual: spec.rankMethod === 'atOrUnder' || ranksOf.length === 0,
        before: '; ',
      },
      {
        slot: fewSlot<PercentileSpec>(spec.few, (few) => ({ ...spec, few })),
        usual: spec.few === 10,
      },
      scopeSlot<PercentileSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}
