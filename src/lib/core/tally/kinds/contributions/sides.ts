import type { Task } from '../../../task/task';
import { TallyRefused } from '../../../errors';
import type { Condition } from '../../../selection/condition';
import { USUAL_CALENDAR, periodLabel, periodOf } from '../../../table/period';
import type { Bitset } from '../../../table/bitset';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { coveredDays, type Days } from '../../series/coverage';
import { dateColumn, daysOf } from '../../series/datedLeaves';
import { daysWords } from '../../series/daysWords';
import { codesOf } from '../../groups/keys';
import { daysOfPeriod, comparableDays } from '../../series/comparableDays';
import { olderBase } from '../../input/olderInput';
import { periodNamed } from '../../series/periodNamed';
import { THIS_READING } from '../../sentence/slots';
import { recordsWithin } from '../../input/recordsWithin';
import { daysCondition } from '../../series/series';
import { warn, type Warning } from '../../trust/warnings';
import type { Between, ContributionsSpec } from './spec';

/** One of the two figures that are compared: what it is of. */
export interface Side {
  readonly input: TallyInput;
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
export function* sidesOf(input: TallyInput, spec: ContributionsSpec): Task<Sides> {
  const { between } = spec;
  switch (between.of) {
    case 'periods':
      return yield* ofPeriods(input, spec, between);
    case 'groups':
      return yield* ofGroups(input, spec, between);
    case 'readings':
      return yield* ofReadings(input, spec, between);
  }
}

type Of<K extends Between['of']> = Extract<Between, { of: K }>;

function* narrowed(
  input: TallyInput,
  spec: ContributionsSpec,
  words: string,
  where: Condition,
): Task<Side> {
  const selection = yield* recordsWithin(input, selectionOf(input, spec.scope), [where]);
  return { input, selection, words, where, here: true };
}

/** Two periods; where one is covered only in part, the same part of the other. */
function* ofPeriods(
  input: TallyInput,
  spec: ContributionsSpec,
  { column: ref, period, calendar = USUAL_CALENDAR, from, to }: Of<'periods'>,
): Task<Sides> {
  const column = dateColumn(input.table, ref);
  const days = yield* daysOf(input.table, ref, recordsOf(selectionOf(input, spec.scope)));
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
  const like = p > q ? comparableDays(p, q, period, covered, calendar) : null;
  const side = (index: number, part: Days | undefined): Task<Side> =>
    narrowed(
      input,
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
  input: TallyInput,
  spec: ContributionsSpec,
  { key, from, to }: Of<'groups'>,
): Task<Sides> {
  const selection = selectionOf(input, spec.scope);
  const { codes, warnings } = yield* codesOf(input, key, selection);
  const byLabel = new Map<string, number>();
  for (const i of recordsOf(selection)) byLabel.set(codes.label(codes.codes[i]), codes.codes[i]);
  const side = (label: string): Task<Side> => {
    const code = byLabel.get(label);
    if (code === undefined)
      throw new TallyRefused(
        `No counted record is in a group “${label}”. There are ${[...byLabel.keys()]
          .slice(0, 12)
          .map((l) => `“${l}”`)
          .join(', ')}${byLabel.size > 12 ? ' and others' : ''}.`,
      );
    return narrowed(input, spec, label, codes.where(code));
  };
  return { before: yield* side(from), after: yield* side(to), warnings };
}

/** Two readings by the same ladder: an older one, and this one or the one that is named. */
function* ofReadings(
  input: TallyInput,
  spec: ContributionsSpec,
  between: Of<'readings'>,
): Task<Sides> {
  function* reading(name: string): Task<TallyInput> {
    const table = input.others.get(name);
    if (!table) throw new TallyRefused(`The reading “${name}” is not at hand.`);
    return yield* olderBase(input, table, undefined, name);
  }
  const side = (of: TallyInput, words: string): Side => ({
    input: of,
    selection: selectionOf(of, spec.scope),
    words,
    where: null,
    here: of === input,
  });
  const { with: older, to: newer } = between;
  return {
    before: side(yield* reading(older), older),
    after: newer === undefined ? side(input, THIS_READING) : side(yield* reading(newer), newer),
    warnings: [],
  };
}
