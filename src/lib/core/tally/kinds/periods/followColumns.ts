import type { Calendar, CalendarPeriod } from '../../../table/period';
import { periodNamed } from '../../series/periodNamed';
import type { FigureColumn } from '../../answer/result';
import {
  differences,
  indexTo,
  movingAverage,
  movingReach,
  relativeChanges,
  runningTotals,
  valuesAt,
  yearOf,
} from './follow';
import { placeBefore, type Against, type Stretch } from './like';
import type { PeriodsSpec } from './spec';

/** A period that is set against a part of another: its own part and the other's, as figures. */
export interface LikeFigures {
  readonly k: number;
  readonly against: Against;
  readonly own: number;
  readonly other: number;
}

/** What is compared, by period: the figure itself and the one it is set against; in part where only that is like. */
export interface Compared {
  readonly own: Float64Array;
  readonly other: Float64Array;
}

/** What the figures of a series are set against, in the order of `spec.against`. */
export const comparedOf = (
  spec: PeriodsSpec,
  values: Float64Array,
  stretch: Stretch,
  calendar: Calendar,
  likes: readonly LikeFigures[],
): Compared[] =>
  spec.against.map((against) => {
    const own = values.slice();
    const other = valuesAt(values, (k) => placeBefore(k, against, stretch, calendar));
    for (const like of likes)
      if (like.against === against) [own[like.k], other[like.k]] = [like.own, like.other];
    return { own, other };
  });

/** What follows from a series, in the order of `followColumns`. */
export function follow(
  spec: PeriodsSpec,
  values: Float64Array,
  adds: boolean,
  { first, period }: Stretch,
  calendar: Calendar,
  compared: readonly Compared[],
): Float64Array[] {
  const out = compared.flatMap(({ own, other }) => [
    other,
    differences(own, other),
    relativeChanges(own, other),
  ]);
  // What does not add up has no totals: none in every period.
  const totals = (restart?: (k: number) => boolean): Float64Array =>
    adds ? runningTotals(values, restart) : values.map(() => NaN);
  const year = (k: number): number => yearOf(first + k, period, calendar);
  if (spec.running) out.push(totals());
  if (spec.toDate) out.push(totals((k) => year(k) !== year(k - 1)));
  if (spec.moving) out.push(movingAverage(values, spec.moving.k, spec.moving.place));
  if (spec.index) out.push(indexTo(values, baseOf(spec.index.base, first, period, calendar)));
  return out;
}

/** The place of the base period among those counted, the first unless another is named; NaN: several. */
export const baseOf = (
  base: string | undefined,
  first: number,
  period: CalendarPeriod,
  calendar: Calendar,
): number => (base === undefined ? 0 : (periodNamed(base, period, calendar) ?? NaN) - first);

export interface Follower {
  column(of: FigureColumn): FigureColumn;
  /** Which period its figures are set against; the first of each is that period's own figure. */
  readonly against?: Against;
  readonly figure?: boolean;
}

const AGAINST: Record<Against, { words: string; reach: number[] }> = {
  previous: { words: 'the period before', reach: [0, -1] },
  // The year before is not at one distance at every level: rows say themselves which records those are.
  yearBefore: { words: 'a year before', reach: [0] },
};

export function followColumns(spec: PeriodsSpec): Follower[] {
  const make =
    (key: string, title: string, words: string, more: Partial<FigureColumn> = {}) =>
    (of: FigureColumn): FigureColumn => ({
      key: `${of.key}.${key}`,
      title: `${of.title}, ${title}`,
      unit: of.unit,
      type: 'number',
      ...(of.decimals !== undefined && { decimals: of.decimals }),
      words,
      ...more,
    });
  const out: Follower[] = [];
  for (const against of spec.against) {
    const { words, reach } = AGAINST[against];
    out.push(
      {
        against,
        figure: true,
        column: ({ measure: _, adds: _adds, partOf: _part, ...of }) => ({
          ...of,
          key: `${of.key}.${against}`,
          title: `${of.title}, ${words}`,
          words: `The figure of ${words}.`,
          reach: [against === 'previous' ? -1 : 0],
        }),
      },
      {
        against,
        column: make(
          `${against}Difference`,
          `difference from ${words}`,
          `This period less ${words}.`,
          { reach },
        ),
      },
      {
        against,
        column: make(
          `${against}Change`,
          `change from ${words}`,
          `(This period − ${words}) ÷ the size of the latter.`,
          { type: 'share', unit: '', decimals: undefined, reach },
        ),
      },
    );
  }
  if (spec.running)
    out.push({
      column: make('running', 'running total', 'All periods up to this one added up.', {
        reach: 'above',
      }),
    });
  if (spec.toDate)
    out.push({
      column: make(
        'toDate',
        'since the start of the year',
        'The periods of the year up to this one added up.',
        { reach: 'run' },
      ),
    });
  if (spec.moving) {
    const { k, place } = spec.moving;
    out.push({
      column: make(
        'moving',
        `${place} average of ${k}`,
        `Mean of ${k} periods${place === 'centred' ? ' around this one' : ' up to this one'}.`,
        { reach: movingReach(k, place) },
      ),
    });
  }
  if (spec.index)
    out.push({
      column: make('index', 'index', 'This period ÷ the base period × 100.', { unit: '' }),
    });
  return out;
}
