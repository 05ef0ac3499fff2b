import type { Steps } from '../../steps/steps';
import { TallyRefused } from '../../errors';
import type { Condition } from '../../scope/condition';
import { USUAL_CALENDAR, periodLabel, periodOf } from '../../table/period';
import type { Bitset } from '../../table/bitset';
import { recordsOf, selectionOf, type Base } from '../base';
import { coveredDays, type Days } from '../coverage';
import { dateColumn, daysOf } from '../datedLeaves';
import { daysWords } from '../daysWords';
import { codesOf } from '../keys';
import { daysOfPeriod, likeDays } from '../like';
import { olderBase } from '../olderBase';
import { periodNamed } from '../periodNamed';
import { recordsWithin } from '../recordsWithin';
import { daysCondition } from '../series';
import { warn, type Warning } from '../warnings';
import type { Between, ContributionsSpec } from './spec';

/** One of the two figures that are compared: what it is of. */
export interface Side {
  readonly base: Base;
  readonly selection: Bitset;
  readonly words: string;
  /** What its records meet; null where they belong to another reading, or are all. */
  readonly where: Condition | null;
  /** Whether its records are records of the list itself. */
  readonly here: boolean;
}

export interface Sides {
  readonly before: Side;
  readonly after: Side;
  readonly warnings: readonly Warning[];
}

/** @throws TallyRefused where one of the two is not there */
export function* sidesOf(base: Base, spec: ContributionsSpec): Steps<Sides> {
  const { between } = spec;
  switch (between.of) {
    case 'periods':
      return yield* ofPeriods(base, spec, between);
    case 'groups':
      return yield* ofGroups(base, spec, between);
    case 'readings':
      return yield* ofReadings(base, spec, between);
  }
}

type Of<K extends Between['of']> = Extract<Between, { of: K }>;

function* narrowed(
  base: Base,
  spec: ContributionsSpec,
  words: string,
  where: Condition,
): Steps<Side> {
  const selection = yield* recordsWithin(base, selectionOf(base, spec.scope), [where]);
  return { base, selection, words, where, here: true };
}

/** Two periods; where one is covered only in part, the same part of the other. */
function* ofPeriods(
  base: Base,
  spec: ContributionsSpec,
  { column: ref, period, calendar = USUAL_CALENDAR, from, to }: Of<'periods'>,
): Steps<Sides> {
  const column = dateColumn(base.table, ref);
  const days = yield* daysOf(base.table, ref, recordsOf(selectionOf(base, spec.scope)));
  const covered = coveredDays(column, calendar);
  const [first, last] = [days.from, days.to].map((day) => periodOf(day, period, calendar));
  const whole = daysOfPeriod(last, period, calendar).to <= covered.to ? last : last - 1;
  const named = (name: string | undefined, other: number): number =>
    name === undefined ? other : (periodNamed(name, period, calendar) ?? other);
  const p = named(to, Math.max(whole, first + 1));
  const q = named(from, p - 1);
  const label = (index: number): string => periodLabel(index, period, calendar);
  for (const index of [q, p])
    if (index < first || index > last)
      throw new TallyRefused(
        first === last
          ? `All counted dates lie in ${label(first)}: there is no second period to compare with. Take a shorter period.`
          : `No counted date lies in ${label(index)}: they go from ${label(first)} to ${label(last)}.`,
      );
  const like = p > q ? likeDays(p, q, period, covered, calendar) : null;
  const side = (index: number, part: Days | undefined): Steps<Side> =>
    narrowed(
      base,
      spec,
      label(index),
      daysCondition(ref, part ?? daysOfPeriod(index, period, calendar)),
    );
  return {
    before: yield* side(q, like?.other),
    after: yield* side(p, like?.own),
    warnings: like
      ? [
          warn(
            'like-with-like',
            `${label(p)} is compared like with like, ${daysWords(like.own)} against ${daysWords(like.other)}.`,
          ),
        ]
      : [],
  };
}

/** Two groups of a key, by their labels. */
function* ofGroups(
  base: Base,
  spec: ContributionsSpec,
  { key, from, to }: Of<'groups'>,
): Steps<Sides> {
  const selection = selectionOf(base, spec.scope);
  const { codes, warnings } = yield* codesOf(base, key, selection);
  const byLabel = new Map<string, number>();
  for (const i of recordsOf(selection)) byLabel.set(codes.label(codes.codes[i]), codes.codes[i]);
  const side = (label: string): Steps<Side> => {
    const code = byLabel.get(label);
    if (code === undefined)
      throw new TallyRefused(
        `No counted record is in a group “${label}”. There are ${[...byLabel.keys()]
          .slice(0, 12)
          .map((l) => `“${l}”`)
          .join(', ')}${byLabel.size > 12 ? ' and others' : ''}.`,
      );
    return narrowed(base, spec, label, codes.where(code));
  };
  return { before: yield* side(from), after: yield* side(to), warnings };
}

/** An older reading, by the same ladder, and this one. */
function* ofReadings(base: Base, spec: ContributionsSpec, between: Of<'readings'>): Steps<Sides> {
  const older = base.others.get(between.with);
  if (!older) throw new TallyRefused(`The reading “${between.with}” is not at hand.`);
  const before = yield* olderBase(base, older, undefined, between.with);
  const side = (of: Base, words: string): Side => ({
    base: of,
    selection: selectionOf(of, spec.scope),
    words,
    where: null,
    here: of === base,
  });
  return {
    before: side(before, between.with),
    after: side(base, 'this reading'),
    warnings: [],
  };
}
