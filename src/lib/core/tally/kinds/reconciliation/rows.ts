import { MEASURES, type Measure } from '../../../measure/measure';
import { counted } from '../../../table/format';
import type { Condition } from '../../../selection/condition';
import { CompensatedSum } from '../../../measure/compensated';
import {
  figureOf,
  marked,
  shareOf,
  type Figure,
  type FigureColumn,
  type FigureRow,
} from '../../answer/result';
import { deviationOf, gapsMark } from '../../trust/influence';
import { noneOf } from '../../spec/whereCondition';
import type { Pair } from './pairs';
import type { ReconciliationSpec } from './spec';

/** How two figures stand to each other. */
export type State =
  'agrees' | 'over' | 'under' | 'only here' | 'only there' | 'no value here' | 'no value there';

/** A group with both figures, and how they stand to each other. */
export interface Compared {
  readonly pair: Pair;
  readonly here: number;
  readonly there: number;
  readonly difference: number;
  readonly state: State;
}

/** How far rounding alone may take the two figures apart. */
export interface Slack {
  readonly here: number;
  readonly there: number;
}

/**
 * A group that one list lacks has 0 there where sums and counts are compared, and none else; so the
 * differences of the groups add up to that of the whole.
 */
export function compared(
  pair: Pair,
  { measure, tolerance }: ReconciliationSpec,
  against: Measure,
  slack: Slack,
): Compared {
  const adds = MEASURES[measure.kind].adds && MEASURES[against.kind].adds;
  const figure = (side: Pair['here']): number => (side ? side.figure : adds ? 0 : NaN);
  const [here, there] = [figure(pair.here), figure(pair.there)];
  // A side whose values are all blank has no figure. It adds nothing to the whole, so it takes nothing from it.
  const difference = adds ? orZero(here) - orZero(there) : here - there;
  const most =
    tolerance.in === 'amount' ? tolerance.most : (tolerance.most / 100) * Math.abs(there);
  const state: State = !pair.there
    ? 'only here'
    : !pair.here
      ? 'only there'
      : here !== here
        ? 'no value here'
        : there !== there
          ? 'no value there'
          : Math.abs(difference) <= most + slack.here + slack.there
            ? 'agrees'
            : difference > 0
              ? 'over'
              : 'under';
  return { pair, here, there, difference, state };
}

const orZero = (value: number): number => (value === value ? value : 0);

/** What both lists come to, how far they lie apart, and on how many records each stands. */
export function reconciliationColumns(
  here: FigureColumn,
  there: FigureColumn,
  { with: list }: ReconciliationSpec,
  listName: string,
  bounds: Slack,
): FigureColumn[] {
  const adds = here.adds !== undefined && there.adds !== undefined;
  const { measure: _own, adds: _adds, ...plain } = here;
  const { measure: _other, adds: _also, ...plainThere } = there;
  const sum = (bound: number): Partial<FigureColumn> => (adds ? { adds: { bound } } : {});
  return [
    {
      ...here,
      key: 'here',
      title: `${here.title}, ${listName}`,
      ...(here.adds && sum(bounds.here)),
    },
    {
      ...plainThere,
      key: 'there',
      title: `${there.title}, ${list}`,
      ...(there.adds && sum(bounds.there)),
      words: `The figure of “${list}”.`,
    },
    {
      ...plain,
      key: 'difference',
      title: 'Difference',
      type: 'number',
      ...sum(bounds.here + bounds.there),
      words: `The figure of this list less that of “${list}”.`,
    },
    {
      key: 'ratio',
      title: 'Ratio',
      unit: '',
      type: 'share',
      words: `The figure of this list ÷ that of “${list}”.`,
    },
    { key: 'state', title: 'How they stand', unit: '', type: 'text' },
    {
      key: 'records',
      title: 'Records',
      unit: '',
      type: 'count',
      measure: { kind: 'records' },
      adds: { bound: 0 },
    },
    {
      key: 'recordsThere',
      title: `Records, ${list}`,
      unit: '',
      type: 'count',
      adds: { bound: 0 },
      words: `Records of “${list}”.`,
    },
  ];
}

/** The words of a state: which list has the group, and which lacks it. */
function stateWords({ state, pair }: Compared, listName: string, list: string): string {
  switch (state) {
    case 'only here':
      return `not in ${list}`;
    case 'only there':
      return pair.uncounted ? 'no record of it counts here' : `not in ${listName}`;
    case 'no value here':
      return `no value in ${listName}`;
    case 'no value there':
      return `no value in ${list}`;
    default:
      return state;
  }
}

const recordsIn = (side: Pair['here']): number => side?.records ?? 0;

/** Groups in rows of their own, and those that stand together in one. */
export interface Told {
  readonly shown: readonly Compared[];
  readonly rest: readonly Compared[];
}

/** All groups one by one; where only those apart are wanted, those that agree together. */
export function told(groups: readonly Compared[], { apart }: ReconciliationSpec): Told {
  const isShown = ({ state }: Compared): boolean => !apart || state !== 'agrees';
  return { shown: groups.filter(isShown), rest: groups.filter((group) => !isShown(group)) };
}

/** The whole first, then the groups; those that agree in one line where only the others are wanted. */
export function reconciliationRows(
  whole: Compared,
  { shown, rest }: Told,
  spec: ReconciliationSpec,
  columns: readonly FigureColumn[],
  { labels, listName, against }: { labels: number; listName: string; against: Measure },
): FigureRow[] {
  const cells = (of: Compared): Figure[] => [
    figureOf(of.here),
    figureOf(of.there),
    figureOf(of.difference),
    shareOf(of.here, of.there),
    stateWords(of, listName, spec.with),
    recordsIn(of.pair.here),
    recordsIn(of.pair.there),
  ];
  const elsewhere = columns.flatMap(({ key }, at) =>
    key === 'there' || key === 'recordsThere' ? [at] : [],
  );
  const standing = (where: Condition | null): Pick<FigureRow, 'where' | 'instead'> => ({
    ...(where && { where }),
    instead: [{ columns: elsewhere, where: NO_RECORD }],
  });
  /** What is said of the figures of both lists. */
  const said = ({ here, there }: Pair): Pick<FigureRow, 'marks' | 'deviations'> => ({
    ...marked([...gapsMark(spec.measure, labels, here), ...gapsMark(against, labels + 1, there)]),
    ...deviationOf(spec.measure, labels, here?.rests ?? null),
  });
  const rows: FigureRow[] = [
    {
      kind: 'total',
      level: 0,
      keys: [],
      cells: ['All', ...Array.from({ length: labels - 1 }, () => null), ...cells(whole)],
      ...standing(null),
      ...said(whole.pair),
    },
    ...shown.map((group): FigureRow => ({
      kind: 'group',
      level: 1,
      partOf: 0,
      keys: [...group.pair.keys],
      cells: [...group.pair.path, ...cells(group)],
      ...standing(group.pair.hereWhere ?? NO_RECORD),
      ...said(group.pair),
    })),
  ];
  const adds = columns.some(({ key, adds }) => key === 'difference' && adds);
  if (rest.length > 0) rows.push(restRow(rest, shown, labels, adds, standing));
  return rows;
}

/** The groups that agree, in one line. */
function restRow(
  rest: readonly Compared[],
  shown: readonly Compared[],
  labels: number,
  adds: boolean,
  standing: (where: Condition | null) => Pick<FigureRow, 'where' | 'instead'>,
): FigureRow {
  const sum = (of: (group: Compared) => number): number => {
    const total = new CompensatedSum();
    for (const group of rest) total.add(of(group));
    return total.value;
  };
  const figure = (of: (group: Compared) => number): number => (adds ? sum(of) : NaN);
  const [here, there] = [figure((g) => g.here), figure((g) => g.there)];
  return {
    kind: 'others',
    level: 1,
    partOf: 0,
    stands: rest.length,
    // One more than a group has: a blank group is another row.
    keys: Array.from({ length: labels + 1 }, () => null),
    cells: [
      ...Array.from({ length: labels - 1 }, () => null),
      `${counted(rest.length, 'group')} that ${rest.length === 1 ? 'agrees' : 'agree'}`,
      figureOf(here),
      figureOf(there),
      figureOf(here - there),
      shareOf(here, there),
      'agrees',
      sum((g) => recordsIn(g.pair.here)),
      sum((g) => recordsIn(g.pair.there)),
    ],
    ...standing(noneOf(shown.flatMap(({ pair }) => pair.hereWhere ?? []))),
  };
}

/** Records of the other list are none of this one's. */
const NO_RECORD: Condition = { kind: 'records', not: false, records: [] };
