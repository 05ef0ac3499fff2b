import type { Names } from '../../kind/kind';
import { begun, type Part, type Slot } from '../../sentence/sentence';
import { optionalParts, type Option } from '../../sentence/optionalParts';
import { calendarSlots, dateSlot, PERIOD_CHOICES } from '../../series/periodSlots';
import { groupParts } from '../../series/seriesSlots';
import {
  choiceSlot,
  columnSlot,
  keySlot,
  listSlot,
  measureSlot,
  labelSlot,
  newerSlot,
  numberSlot,
  scopeSlot,
} from '../../sentence/slots';
import type { Between, ContributionsSpec } from './spec';

/** `What moved sum of Fares taken from 2024 to 2025, by year of Sailed on, for each Vessel, the largest first.` */
export function contributionsSentence(
  spec: ContributionsSpec,
  names: Names,
): Part<ContributionsSpec>[] {
  return begun<ContributionsSpec>([
    'what moved ',
    measureSlot<ContributionsSpec>(
      'measure',
      spec.measure,
      names,
      (measure) => (measure ? { ...spec, measure } : spec),
      { needed: true },
    ),
    ...betweenParts(spec, names),
    ...groupParts<ContributionsSpec>('by', spec.by, names, [spec.measure], (by) =>
      by.length ? { ...spec, by } : spec,
    ),
    ', ',
    choiceSlot<ContributionsSpec, ContributionsSpec['order']>(
      'order',
      'Order',
      spec.order,
      [
        { value: 'size', label: 'the largest first' },
        { value: 'label', label: 'in label order' },
      ],
      (order) => ({ ...spec, order }),
    ),
    ...optionalParts<ContributionsSpec>([
      {
        slot: numberSlot<ContributionsSpec>(
          'top',
          spec.top === undefined ? 'all groups' : `the first ${spec.top} and all others`,
          spec.top ?? null,
          { least: 1, most: 10_000, whole: true, name: 'Groups shown' },
          (top) => {
            const { top: _, ...rest } = spec;
            return top === null ? rest : { ...spec, top };
          },
        ),
        usual: spec.top === undefined,
      },
      ...calendarOf(spec),
      scopeSlot<ContributionsSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

const put = (spec: ContributionsSpec, between: Between): ContributionsSpec => ({
  ...spec,
  between,
});

function betweenParts(spec: ContributionsSpec, names: Names): Part<ContributionsSpec>[] {
  const { between } = spec;
  switch (between.of) {
    case 'periods': {
      const { period, calendar } = between;
      const end = (side: 'from' | 'to', unset: string): Slot<ContributionsSpec> =>
        dateSlot<ContributionsSpec>(
          `between.${side}`,
          between[side],
          unset,
          (name) => put(spec, { ...between, [side]: name }),
          { period, calendar },
        );
      return [
        ' from ',
        end('from', 'the period before'),
        ' to ',
        end('to', 'the last whole period'),
        ' by ',
        choiceSlot<ContributionsSpec, typeof period>(
          'between.period',
          'Period',
          period,
          PERIOD_CHOICES,
          (next) => put(spec, { of: 'periods', column: between.column, calendar, period: next }),
        ),
        ' of ',
        columnSlot<ContributionsSpec>(
          'between.column',
          between.column,
          names,
          ['date', 'datetime'],
          (column) => (column === null ? spec : put(spec, { ...between, column })),
          { needed: true },
        ),
        ' ',
        ...otherwise(spec, names),
      ];
    }
    case 'groups': {
      const group = (side: 'from' | 'to', name: string): Slot<ContributionsSpec> =>
        labelSlot<ContributionsSpec>(
          `between.${side}`,
          name,
          between[side],
          between.key.column,
          (label) => put(spec, { ...between, [side]: label }),
        );
      return [
        ' from ',
        group('from', 'From the group'),
        ' to ',
        group('to', 'To the group'),
        ' of ',
        keySlot<ContributionsSpec>(
          'between.key',
          between.key,
          names,
          (key) => (key ? put(spec, { ...between, key }) : spec),
          { needed: true },
        ),
        ' ',
        ...otherwise(spec, names),
      ];
    }
    case 'readings':
      return [
        ' from ',
        listSlot<ContributionsSpec>('between.with', 'The older reading', between.with, (name) =>
          put(spec, { ...between, with: name }),
        ),
        ' to ',
        newerSlot<ContributionsSpec>('between.to', between.to, (to) =>
          put(spec, { ...between, to }),
        ),
        ' ',
        ...otherwise(spec, names),
      ];
  }
}

/** Empty places for comparing something else than is compared now. */
function otherwise(spec: ContributionsSpec, names: Names): Part<ContributionsSpec>[] {
  const { between } = spec;
  const act = (path: string, words: string, next: Between): Slot<ContributionsSpec> => ({
    path,
    words,
    add: true,
    takes: { a: 'act', set: () => put(spec, next) },
  });
  return [
    ...(between.of === 'periods'
      ? []
      : [
          columnSlot<ContributionsSpec>(
            'between.column',
            null,
            names,
            ['date', 'datetime'],
            (column) =>
              column === null ? spec : put(spec, { of: 'periods', column, period: 'year' }),
            { empty: 'or two periods of…' },
          ),
          ' ',
        ]),
    ...(between.of === 'groups'
      ? []
      : [
          act('between.key', 'or two groups…', { of: 'groups', key: spec.by[0], from: '', to: '' }),
          ' ',
        ]),
    ...(between.of === 'readings'
      ? []
      : [act('between.with', 'or two readings…', { of: 'readings', with: '' }), ' ']),
  ];
}

const calendarOf = (spec: ContributionsSpec): Option<ContributionsSpec>[] => {
  const { between } = spec;
  return between.of === 'periods'
    ? calendarSlots<ContributionsSpec>('between.calendar', between.calendar, (calendar) =>
        put(spec, { ...between, calendar }),
      )
    : [];
};
