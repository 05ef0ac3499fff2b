import { totalGrouping, type Grouping } from '../../../measure/grouping';
import { MEASURES } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import { periodOf, USUAL_CALENDAR, type Calendar } from '../../../table/period';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { coverage, coveredDays } from '../../series/coverage';
import { crossed, datedGroups } from '../../series/datedGroups';
import {
  cutsOf,
  dateColumn,
  daysOf,
  leavesByPeriod,
  levelGrouping,
  stretchGrouping,
  undatedGrouping,
} from '../../series/datedLeaves';
import { GroupWalk } from '../../groups/groupWalk';
import { computeInfluences, type Influence } from '../../trust/influence';
import type { Warning } from '../../trust/warnings';
import { comparedOf, follow, type Compared } from './followColumns';
import { likeWithLike, type LikePart, type Stretch } from './like';
import type { PeriodsSpec } from './spec';

/** The series of one level: its periods, and their measures with what follows from them. */
export interface Level extends Stretch {
  readonly records: Float64Array;
  /** `values[measure][period]` */
  readonly values: readonly Float64Array[];
  /** What is set against what: `compared[measure][against]`. */
  readonly compared: readonly (readonly Compared[])[];
  /** `followed[measure][column][period]`, in the order of `followColumns`. */
  readonly followed: readonly (readonly Float64Array[])[];
  /** Which periods are set against another only in part. */
  readonly likes: readonly LikePart[];
  rests(measure: number, period: number): Influence | null;
  /** The same for a part of a period: its own, or the other's. */
  restsOfLike(measure: number, like: LikePart, side: 'own' | 'other'): Influence | null;
}

/** All levels of the whole or of a group, with its total and the records that have no date. */
export interface ComputedSeries {
  readonly levels: readonly Level[];
  readonly records: number;
  readonly totals: readonly number[];
  restsOfTotal(measure: number): Influence | null;
  readonly undated: { readonly records: number; readonly values: readonly number[] };
}

/** What is known of a level whatever the group. */
export interface LevelFacts extends Stretch {
  readonly partialFirst: boolean;
  readonly partialLast: boolean;
}

export interface ComputedPeriods {
  readonly calendar: Calendar;
  readonly levels: readonly LevelFacts[];
  readonly likes: readonly LikePart[];
  readonly whole: ComputedSeries;
  /** The groups that have records, the whole first. */
  readonly walk: GroupWalk;
  /** The series of a row of the walk. */
  series(row: number): ComputedSeries;
  readonly warnings: readonly Warning[];
}

/**
 * The measures of every period of every level, of the whole and of each group, from one pass over
 * the records.
 * @throws TallyRefused where no record has a date, or periods or groups would be too many
 */
export function* computePeriods(input: TallyInput, spec: PeriodsSpec): Task<ComputedPeriods> {
  const { table } = input;
  const { calendar = USUAL_CALENDAR, measures } = spec;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const days = yield* daysOf(table, spec.column, records);
  const column = dateColumn(table, spec.column);
  const stretches = spec.levels.map((period): Stretch => {
    const first = periodOf(days.from, period, calendar);
    return { period, first, length: periodOf(days.to, period, calendar) - first + 1 };
  });
  const covered = coveredDays(column, calendar);
  const likes = likeWithLike(stretches, covered, spec.against, calendar);
  const finest = spec.levels[spec.levels.length - 1];
  const cuts = cutsOf(likes.flatMap(({ own, other }) => [own, other]));
  const leaves = yield* leavesByPeriod(table, spec.column, records, finest, calendar, cuts);
  yield undefined;
  const dated = yield* datedGroups(input, selection, spec.by, leaves, measures);
  const dates: Grouping[] = [
    ...spec.levels.map((period) => levelGrouping(leaves, period)),
    totalGrouping(leaves.length + 1),
    undatedGrouping(leaves),
    ...likes.map(({ own, other }) => stretchGrouping(leaves, [own, other])),
  ];
  const total = spec.levels.length;
  const groupings: Grouping[] = [];
  for (const side of dated.levels)
    for (const d of dates) groupings.push(yield* crossed(dated, side, d));
  const { figures, influences } = yield* computeInfluences(dated.leafed, groupings, [
    ...measures,
    { kind: 'records' },
  ]);
  const count = measures.length;

  const seriesOf = (side: number, group: number): ComputedSeries => {
    const at = side * dates.length;
    const of = (d: number, m: number): Float64Array => {
      const { size } = dates[d];
      return figures[at + d][m].subarray(group * size, (group + 1) * size);
    };
    const rests = (d: number, m: number, place: number): Influence | null =>
      influences.at(at + d, m, group * dates[d].size + place);
    const likeAt = (like: LikePart): number => total + 2 + likes.indexOf(like);
    return {
      levels: stretches.map((stretch, l): Level => {
        const own = likes.filter((like) => like.level === l);
        const compared = measures.map((_, m) =>
          comparedOf(
            spec,
            of(l, m),
            stretch,
            calendar,
            own.map((like) => {
              const [a, b] = of(likeAt(like), m);
              return { k: like.k, against: like.against, own: a, other: b };
            }),
          ),
        );
        return {
          ...stretch,
          records: of(l, count),
          values: measures.map((_, m) => of(l, m)),
          compared,
          followed: measures.map(({ kind }, m) =>
            follow(spec, of(l, m), MEASURES[kind].adds, stretch, calendar, compared[m]),
          ),
          likes: own,
          rests: (m, k) => rests(l, m, k),
          restsOfLike: (m, like, which) => rests(likeAt(like), m, which === 'own' ? 0 : 1),
        };
      }),
      records: of(total, count)[0],
      totals: measures.map((_, m) => of(total, m)[0]),
      restsOfTotal: (m) => rests(total, m, 0),
      undated: {
        records: of(total + 1, count)[0],
        values: measures.map((_, m) => of(total + 1, m)[0]),
      },
    };
  };
  const walk = yield* GroupWalk.of(
    dated.tree,
    spec.by.map((key) => key.order),
    dated.tree.levels.map((_, l) => {
      const all = figures[(l + 1) * dates.length + total];
      return { records: all[count], measures: all };
    }),
  );
  yield undefined;
  const whole = seriesOf(0, 0);
  yield undefined;
  return {
    calendar,
    levels: stretches.map((stretch) => ({
      ...stretch,
      ...coverage(column, stretch.period, calendar, stretch.first, stretch.length),
    })),
    likes,
    whole,
    walk,
    series(row) {
      const { level, group } = walk.at(row);
      return seriesOf(level + 1, Math.max(0, group));
    },
    warnings: dated.warnings,
  };
}
