import { counted, givenNumber } from '../../../table/format';
import type { Names } from '../../kind/kind';
import { begun, type Part, type Slot } from '../../sentence/sentence';
import { seriesCalendar, seriesParts } from '../../series/seriesSlots';
import type { SeriesSpec } from '../../series/seriesSpec';
import { optionalParts } from '../../sentence/optionalParts';
import { dateSlot } from '../../series/periodSlots';
import { columnSlot, numberSlot, scopeSlot } from '../../sentence/slots';
import type { GrowthSpec } from './spec';

type Values = NonNullable<GrowthSpec['values']>;

/** `Compound growth of sum of Fares taken by year of Sailed on, from … to …, and 1 period on.` */
export function growthSentence(spec: GrowthSpec, names: Names): Part<GrowthSpec>[] {
  const { series, values } = spec;
  return begun<GrowthSpec>([
    'compound growth ',
    ...(series
      ? ofSeries(spec, series, names)
      : values
        ? ofValues(spec, values)
        : [seriesAgain(spec, names)]),
    ', and ',
    numberSlot<GrowthSpec>(
      'ahead',
      `${counted(spec.ahead, 'period')} on`,
      spec.ahead,
      { least: 0, most: 1000, needed: true, name: 'Periods carried on at this rate' },
      (ahead) => ({ ...spec, ahead: ahead ?? spec.ahead }),
    ),
    ...optionalParts<GrowthSpec>([
      ...(series
        ? [
            ...seriesCalendar<GrowthSpec>(series, (next) => ({ ...spec, series: next })),
            { slot: twoValues(spec), usual: true },
            scopeSlot<GrowthSpec>(spec.scope, (scope) => ({ ...spec, scope })),
          ]
        : values
          ? [{ slot: seriesAgain(spec, names), usual: true }]
          : []),
    ]),
  ]);
}

function ofSeries(spec: GrowthSpec, series: SeriesSpec, names: Names): Part<GrowthSpec>[] {
  return [
    'of ',
    ...seriesParts<GrowthSpec>(series, names, (next) => ({ ...spec, series: next })),
    ', from ',
    dateSlot<GrowthSpec>(
      'from',
      spec.from,
      'the first whole period',
      (from) => ({ ...spec, from }),
      series,
    ),
    ' to ',
    dateSlot<GrowthSpec>('to', spec.to, 'the last whole period', (to) => ({ ...spec, to }), series),
  ];
}

/** Two values typed in the place of a series. */
function twoValues(spec: GrowthSpec): Slot<GrowthSpec> {
  const { series: _, from: _from, to: _to, ...rest } = spec;
  return {
    path: 'values',
    words: 'two typed values instead',
    takes: {
      a: 'act',
      set: () => ({ ...rest, values: { first: 100, last: 121, intervals: 2 } }),
    },
  };
}

/** A series of the list in the place of two typed values. */
function seriesAgain(spec: GrowthSpec, names: Names): Slot<GrowthSpec> {
  const { values: _, ...rest } = spec;
  return columnSlot<GrowthSpec>(
    'series',
    null,
    names,
    ['date', 'datetime'],
    (column) =>
      column === null
        ? spec
        : { ...rest, series: { column, period: 'year', measure: { kind: 'records' }, by: [] } },
    { empty: 'of the list, by periods of…' },
  );
}

function ofValues(spec: GrowthSpec, values: Values): Part<GrowthSpec>[] {
  const put = (change: Partial<Values>): GrowthSpec => ({
    ...spec,
    values: { ...values, ...change },
  });
  const any = { least: -1e300, most: 1e300, needed: true };
  const apart: Part<GrowthSpec>[] =
    values.intervals !== undefined
      ? [
          ' over ',
          numberSlot<GrowthSpec>(
            'values.intervals',
            `${givenNumber(values.intervals)} intervals`,
            values.intervals,
            { least: 1e-9, most: 1e9, name: 'Intervals between them' },
            (intervals) =>
              put(
                intervals === null
                  ? { intervals: undefined, firstDate: '2024-01-01', lastDate: '2025-01-01' }
                  : { intervals },
              ),
          ),
        ]
      : [];
  const day = (side: 'firstDate' | 'lastDate', unset: string): Slot<GrowthSpec> =>
    dateSlot<GrowthSpec>(`values.${side}`, values[side], unset, (next) => put({ [side]: next }));
  return [
    'from ',
    numberSlot<GrowthSpec>(
      'values.first',
      givenNumber(values.first),
      values.first,
      { ...any, name: 'First value' },
      (first) => put({ first: first ?? values.first }),
    ),
    ...(values.intervals === undefined || values.firstDate !== undefined
      ? [' on ', day('firstDate', 'a day')]
      : []),
    ' to ',
    numberSlot<GrowthSpec>(
      'values.last',
      givenNumber(values.last),
      values.last,
      { ...any, name: 'Last value' },
      (last) => put({ last: last ?? values.last }),
    ),
    ...(values.intervals === undefined || values.lastDate !== undefined
      ? [' on ', day('lastDate', 'a later day')]
      : []),
    ...apart,
    ...(values.intervals === undefined
      ? [
          ' ',
          {
            path: 'values.intervals',
            words: 'or count the intervals…',
            add: true,
            takes: {
              a: 'act' as const,
              set: () => put({ intervals: 1, firstDate: undefined, lastDate: undefined }),
            },
          },
        ]
      : []),
  ];
}
