import { givenNumber } from '../../../table/format';
import type { Names } from '../../kind/kind';
import { begun, type Part, type Slot } from '../../sentence/sentence';
import { optionalParts } from '../../sentence/optionalParts';
import { groupParts, seriesCalendar, seriesParts } from '../../series/seriesSlots';
import { columnSlot, numbersWords, numberSlot, scopeSlot, toggleSlot } from '../../sentence/slots';
import type { LineSpec } from './spec';

/** `The line of Fares taken on Boarded for each Route, predicted at 100 and 200 with bounds of 95 %.` */
export function lineSentence(spec: LineSpec, names: Names): Part<LineSpec>[] {
  const { series } = spec;
  return begun<LineSpec>([
    'the line of ',
    ...(series
      ? seriesParts<LineSpec>(series, names, (next) => ({ ...spec, series: next }))
      : ofColumns(spec, names)),
    ...predicted(spec),
    ...optionalParts<LineSpec>([
      {
        slot: toggleSlot<LineSpec>('origin', 'through the origin', spec.origin, (origin) => ({
          ...spec,
          origin,
        })),
        usual: !spec.origin,
      },
      {
        slot: numberSlot<LineSpec>(
          'far',
          `what lies over ${givenNumber(spec.far)} deviations off named`,
          spec.far,
          { least: 1, most: 20, needed: true, name: 'Deviations off the line' },
          (far) => ({ ...spec, far: far ?? spec.far }),
        ),
        usual: spec.far === 3,
      },
      ...(series
        ? seriesCalendar<LineSpec>(series, (next) => ({ ...spec, series: next }))
        : [{ slot: alongTime(spec, names), usual: true }]),
      scopeSlot<LineSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

function ofColumns(spec: LineSpec, names: Names): Part<LineSpec>[] {
  const side = (key: 'x' | 'y'): Slot<LineSpec> =>
    columnSlot<LineSpec>(
      key,
      spec[key] ?? null,
      names,
      ['number', 'yesno'],
      (column) => (column === null ? spec : { ...spec, [key]: column }),
      { needed: true, empty: 'a number…' },
    );
  return [
    side('y'),
    ' on ',
    side('x'),
    ...groupParts<LineSpec>('by', spec.by, names, [], (by) => ({ ...spec, by })),
  ];
}

/** A series over its periods in the place of the two columns. */
function alongTime(spec: LineSpec, names: Names): Slot<LineSpec> {
  const { x: _, y, by, ...rest } = spec;
  return columnSlot<LineSpec>(
    'series',
    null,
    names,
    ['date', 'datetime'],
    (column) =>
      column === null
        ? spec
        : {
            ...rest,
            by: [],
            series: {
              column,
              period: 'month',
              measure: y === undefined ? { kind: 'records' } : { kind: 'sum', column: y },
              by,
            },
          },
    { empty: 'by periods of…' },
  );
}

function predicted(spec: LineSpec): Part<LineSpec>[] {
  const at: Slot<LineSpec> = {
    path: 'at',
    name: 'Predicted at',
    words: spec.at.length ? numbersWords(spec.at) : 'and predict at…',
    ...(spec.at.length === 0 && { add: true }),
    takes: {
      a: 'numbers',
      value: spec.at,
      least: -1e300,
      most: 1e300,
      usual: [],
      set: (next) => ({ ...spec, at: next.slice(0, 20) }),
    },
  };
  if (spec.at.length === 0) return [' ', at];
  return [
    ', predicted at ',
    at,
    ' with bounds of ',
    numberSlot<LineSpec>(
      'percent',
      `${givenNumber(spec.percent)} %`,
      spec.percent,
      { least: 1, most: 99.9, needed: true, name: 'Bounds in per cent' },
      (percent) => ({ ...spec, percent: percent ?? spec.percent }),
    ),
  ];
}
