import type { Names } from '../../kind/kind';
import { begun, type Part, type Slot } from '../../sentence/sentence';
import { optionalParts, foldedRun, type Option } from '../../sentence/optionalParts';
import { calendarSlots, dateSlot, PERIOD_CHOICES } from '../../series/periodSlots';
import { groupParts } from '../../series/seriesSlots';
import {
  choiceSlot,
  columnSlot,
  measureSlots,
  numberSlot,
  scopeSlot,
  severalSlot,
  toggleSlot,
} from '../../sentence/slots';
import type { PeriodsSpec } from './spec';

/** `Sum of Boarded by year and month of Sailed on, against a year before.` */
export function periodsSentence(spec: PeriodsSpec, names: Names): Part<PeriodsSpec>[] {
  const measures = measureSlots<PeriodsSpec>(
    'measures',
    spec.measures,
    names,
    (next) => ({ ...spec, measures: next }),
    1,
  );
  return begun<PeriodsSpec>([
    ...foldedRun(measures.slots),
    ' ',
    measures.add,
    ' by ',
    severalSlot<PeriodsSpec, PeriodsSpec['levels'][number]>(
      'levels',
      'Periods',
      spec.levels,
      PERIOD_CHOICES,
      (levels) => ({ ...spec, levels }),
      { least: 1 },
    ),
    ' of ',
    columnSlot<PeriodsSpec>(
      'column',
      spec.column,
      names,
      ['date', 'datetime'],
      (column) => (column === null ? spec : { ...spec, column }),
      { needed: true },
    ),
    ...groupParts<PeriodsSpec>('by', spec.by, names, spec.measures, (by) => ({ ...spec, by })),
    ...(spec.by.length
      ? [
          ', ',
          choiceSlot<PeriodsSpec, PeriodsSpec['nest']>(
            'nest',
            'Which holds which',
            spec.nest,
            [
              { value: 'periods', label: 'periods within each group' },
              { value: 'groups', label: 'groups within each period' },
            ],
            (nest) => ({ ...spec, nest }),
          ),
        ]
      : []),
    ...optionalParts<PeriodsSpec>([
      {
        slot: severalSlot<PeriodsSpec, PeriodsSpec['against'][number]>(
          'against',
          'Against',
          spec.against,
          [
            { value: 'previous', label: 'the period before' },
            { value: 'yearBefore', label: 'a year before' },
          ],
          (against) => ({ ...spec, against }),
          { words: spec.against.length ? undefined : 'against the period or year before' },
        ),
        usual: spec.against.length === 0,
        before: ', against ',
      },
      {
        slot: toggleSlot<PeriodsSpec>('running', 'the running total', spec.running, (running) => ({
          ...spec,
          running,
        })),
        usual: !spec.running,
        before: ', with ',
      },
      {
        slot: toggleSlot<PeriodsSpec>(
          'toDate',
          'the total since the start of the year',
          spec.toDate,
          (toDate) => ({ ...spec, toDate }),
        ),
        usual: !spec.toDate,
        before: ', with ',
      },
      ...moving(spec),
      ...index(spec),
      ...calendarSlots<PeriodsSpec>(
        'calendar',
        spec.calendar,
        (calendar) => ({ ...spec, calendar }),
        // Which quarters and months a year holds is by its start.
        spec.levels.length > 1 && spec.levels.includes('year'),
      ),
      scopeSlot<PeriodsSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

function moving(spec: PeriodsSpec): Option<PeriodsSpec>[] {
  const { moving: now, ...rest } = spec;
  const many: Slot<PeriodsSpec> = numberSlot<PeriodsSpec>(
    'moving.k',
    now ? `the mean of ${now.k} periods` : 'a moving average',
    now?.k ?? 12,
    { least: 2, most: 1000, whole: true, name: 'Periods in the moving average' },
    (k) => (k === null ? rest : { ...spec, moving: { place: now?.place ?? 'trailing', k } }),
  );
  if (!now) return [{ slot: many, usual: true }];
  return [
    { slot: many, usual: false, before: ', with ' },
    {
      slot: choiceSlot<PeriodsSpec, 'trailing' | 'centred'>(
        'moving.place',
        'Place of the moving average',
        now.place,
        [
          { value: 'trailing', label: 'up to each' },
          { value: 'centred', label: 'around each' },
        ],
        (place) => ({ ...spec, moving: { ...now, place } }),
      ),
      usual: false,
      before: ' ',
    },
  ];
}

function index(spec: PeriodsSpec): Option<PeriodsSpec>[] {
  const { index: now, ...rest } = spec;
  const on = toggleSlot<PeriodsSpec>('index', 'an index', now !== undefined, (wanted) =>
    wanted ? { ...spec, index: {} } : rest,
  );
  if (!now) return [{ slot: on, usual: true }];
  return [
    { slot: on, usual: false, before: ', with ' },
    {
      slot: dateSlot<PeriodsSpec>(
        'index.base',
        now.base,
        'the first period',
        (base) => ({
          ...spec,
          index: base === undefined ? {} : { base },
        }),
        { period: spec.levels[spec.levels.length - 1], calendar: spec.calendar },
      ),
      usual: false,
      before: ' where 100 is ',
    },
  ];
}
