import type { GroupKey } from '../../../arrange/groupKey';
import type { Names } from '../../kind/kind';
import { begun, listedParts, replacedAt, type Part, type Slot } from '../../sentence/sentence';
import { optionalParts, type Option } from '../../sentence/optionalParts';
import { calendarSlots, dateSlot, PERIOD_CHOICES } from '../../series/periodSlots';
import {
  choiceSlot,
  columnSlot,
  keySlot,
  keySlots,
  measureSlot,
  numberSlot,
  scopeSlot,
} from '../../sentence/slots';
import { groupWords, nameOf } from '../../sentence/words';
import { TIES, TIES_WORDS } from './places';
import { ranksRecords, type RankingSpec } from './spec';

type Change = NonNullable<RankingSpec['change']>;

/** `Each Vessel ranked by sum of Fares taken, highest first, within each Route; …; the first 5 and all others.` */
export function rankingSentence(spec: RankingSpec, names: Names): Part<RankingSpec>[] {
  const { groups, within, by } = spec;
  const ofRecords = ranksRecords(spec);
  const keys = keySlots<RankingSpec>(
    'groups',
    groups,
    names,
    (next) => ({
      ...spec,
      groups: next,
      // A key that is added is ranked within those before; one that changes stays what it is.
      within:
        ofRecords && next.length <= groups.length
          ? next.length
          : Math.min(within, Math.max(0, next.length - 1)),
    }),
    { empty: ofRecords ? 'each group of…' : 'then…', least: 0 },
  );
  const inner = keys.slots.slice(within);
  const outer = keys.slots.slice(0, within);
  const changed = change(spec, names);
  return begun<RankingSpec>([
    ...(ofRecords ? ['every record ', keys.add] : ['each ', ...joined(inner), ' ', keys.add]),
    ' ranked by ',
    !ofRecords
      ? measureSlot<RankingSpec>('by', by, names, (next) => (next ? { ...spec, by: next } : spec), {
          needed: true,
        })
      : columnSlot<RankingSpec>(
          'by.column',
          by.column ?? null,
          names,
          ['number', 'date', 'datetime', 'time'],
          (column) => (column === null ? spec : { ...spec, by: { kind: 'sum', column } }),
          { needed: true },
        ),
    ', ',
    choiceSlot<RankingSpec, RankingSpec['from']>(
      'from',
      'First place',
      spec.from,
      [
        { value: 'highest', label: 'highest first' },
        { value: 'lowest', label: 'lowest first' },
      ],
      (from) => ({ ...spec, from }),
    ),
    ...(within ? [', within each ', ...joined(outer)] : [' ', parent(spec, names)]),
    '; ',
    choiceSlot<RankingSpec, RankingSpec['ties']>(
      'ties',
      'Equal ones',
      spec.ties,
      TIES.map((value) => ({ value, label: TIES_WORDS[value] })),
      (ties) => ({ ...spec, ties }),
    ),
    ...limit(spec),
    ...changed.said,
    ...optionalParts<RankingSpec>(
      [
        ...(groups.length > 1 && !ofRecords ? [withinOption(spec, names)] : []),
        ...shown(spec, names),
        ...(spec.change
          ? calendarSlots<RankingSpec>('change.calendar', spec.change.calendar, (calendar) => ({
              ...spec,
              ...(spec.change && { change: { ...spec.change, calendar } }),
            }))
          : []),
        scopeSlot<RankingSpec>(spec.scope, (scope) => ({ ...spec, scope })),
      ],
      changed.add,
    ),
  ]);
}

/** An empty place for a group that the places are given within. */
const parent = (spec: RankingSpec, names: Names): Slot<RankingSpec> =>
  keySlot<RankingSpec>(
    'within',
    null,
    names,
    (key) => (key ? { ...spec, groups: [key, ...spec.groups], within: spec.within + 1 } : spec),
    { taken: spec.groups.map((g) => g.column), empty: 'within each…' },
  );

const joined = (slots: readonly Slot<RankingSpec>[]): Part<RankingSpec>[] =>
  slots.flatMap((slot, k): Part<RankingSpec>[] => (k ? [' and ', slot] : [slot]));

function withinOption(spec: RankingSpec, names: Names): Option<RankingSpec> {
  const words = (keys: readonly GroupKey[]): string =>
    keys.map((key) => groupWords(key, names)).join(' and ');
  return {
    slot: choiceSlot<RankingSpec, string>(
      'within',
      'Places are given',
      String(spec.within),
      spec.groups.map((_, k) => ({
        value: String(k),
        label: k === 0 ? 'over all' : `within each ${words(spec.groups.slice(0, k))}`,
      })),
      (next) => ({ ...spec, within: Number(next) }),
      spec.within ? 'places given anew in each' : 'places within a group above',
    ),
    usual: true,
  };
}

/** All places, the first so many, or the last so many. */
function limit(spec: RankingSpec): Part<RankingSpec>[] {
  const { top: _top, bottom: _bottom, ...rest } = spec;
  const side = spec.top !== undefined ? 'top' : spec.bottom !== undefined ? 'bottom' : 'all';
  const many = spec.top ?? spec.bottom ?? 5;
  const which = choiceSlot<RankingSpec, 'top' | 'bottom' | 'all'>(
    side === 'all' ? 'top' : side,
    'Which places',
    side,
    [
      { value: 'all', label: 'all places' },
      { value: 'top', label: 'the first' },
      { value: 'bottom', label: 'the last' },
    ],
    (next) =>
      next === 'all' ? rest : next === 'top' ? { ...rest, top: many } : { ...rest, bottom: many },
  );
  if (side === 'all') return ['; ', which];
  return [
    '; ',
    which,
    ' ',
    numberSlot<RankingSpec>(
      `${side}.many`,
      String(many),
      many,
      { least: 1, most: 1_000_000, whole: true, name: 'How many places' },
      (next) =>
        next === null ? rest : side === 'top' ? { ...rest, top: next } : { ...rest, bottom: next },
    ),
    ' and all others',
  ];
}

/** The change of place between two periods: of groups, or of records that columns name in both. */
function change(
  spec: RankingSpec,
  names: Names,
): { said: Part<RankingSpec>[]; add: Slot<RankingSpec>[] } {
  if (ranksRecords(spec) && spec.groups.length) return { said: [], add: [] };
  const now = spec.change;
  const { change: _, ...rest } = spec;
  const put = (next: Change | null): RankingSpec => (next ? { ...spec, change: next } : rest);
  const column = columnSlot<RankingSpec>(
    'change.column',
    now?.column ?? null,
    names,
    ['date', 'datetime'],
    (next) => put(next === null ? null : { period: 'year', match: [], ...now, column: next }),
    { empty: 'change of place by…' },
  );
  if (!now) return { said: [], add: [column] };
  const words = (side: 'before' | 'after'): string =>
    side === 'before' ? 'the period before' : `the last period of ${nameOf(names, now.column)}`;
  const day = (side: 'before' | 'after'): Slot<RankingSpec> =>
    dateSlot<RankingSpec>(
      `change.${side}`,
      now[side],
      words(side),
      (next) => put({ ...now, [side]: next }),
      now,
    );
  const said: Part<RankingSpec>[] = [
    '; with the change of place by ',
    choiceSlot<RankingSpec, Change['period']>(
      'change.period',
      'Period',
      now.period,
      PERIOD_CHOICES,
      (period) => put({ ...now, period }),
    ),
    ' of ',
    column,
    ' from ',
    day('before'),
    ' to ',
    day('after'),
    ...(ranksRecords(spec) ? matched(now, names, put) : []),
  ];
  return { said, add: [] };
}

/** ` of what Vessel and Route name` */
function matched(
  now: Change,
  names: Names,
  put: (change: Change) => RankingSpec,
): Part<RankingSpec>[] {
  const slot = (ref: string | null, k: number): Slot<RankingSpec> =>
    columnSlot<RankingSpec>(
      `change.match[${k}]`,
      ref,
      names,
      ['text', 'number', 'date', 'datetime', 'time', 'yesno'],
      (next) => put({ ...now, match: replacedAt(now.match, k, next) }),
      { empty: now.match.length ? 'and by…' : 'records matched by…' },
    );
  return [
    ...(now.match.length ? [', records matched by ', ...listedParts(now.match.map(slot))] : []),
    ' ',
    slot(null, now.match.length),
  ];
}

/** Columns that name a ranked record. */
function shown(spec: RankingSpec, names: Names): Option<RankingSpec>[] {
  if (!ranksRecords(spec)) return [];
  const slot = (ref: string | null, k: number): Slot<RankingSpec> =>
    columnSlot<RankingSpec>(
      `show[${k}]`,
      ref,
      names,
      ['text', 'number', 'date', 'datetime', 'time', 'yesno'],
      (next) => ({ ...spec, show: replacedAt(spec.show, k, next) }),
      { empty: 'show a column…' },
    );
  return [
    ...spec.show.map((ref, k): Option<RankingSpec> => ({
      slot: slot(ref, k),
      usual: false,
      before: k ? ', ' : '; showing ',
    })),
    { slot: slot(null, spec.show.length), usual: true },
  ];
}
