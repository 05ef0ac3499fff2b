import { TallyRefused } from '../../../errors';
import type { GroupTree } from '../../../arrange/tree';
import { columnFor } from '../../../expression/columnFor';
import { inStretches, type Task } from '../../../task/task';
import type { Bitset } from '../../../table/bitset';
import { DAY_MS } from '../../../table/calendar';
import { isText } from '../../../table/column';
import { periodLabel, periodOf, USUAL_CALENDAR } from '../../../table/period';
import { recordsOf, type TallyInput } from '../../input/input';
import { measureColumns } from '../../answer/figure';
import { recordsWithin } from '../../input/recordsWithin';
import { periodNamed } from '../../series/periodNamed';
import type { FigureColumn, Mark } from '../../answer/result';
import { periodCondition } from '../../series/series';
import { figuresIn, ranked } from './groupOrder';
import { placeMark } from './placeMark';
import { placesOf } from './places';
import type { RankingSpec } from './spec';

/** Places of groups in two periods. */
export interface Change {
  readonly columns: FigureColumn[];
  cells(group: number): (number | null)[];
  /** Marks of the places before and after, where one record makes them. @param at the first of them */
  marks(group: number, at: number): Mark[];
}

/** The two periods that places are compared in, and the records of each. */
export interface Compared {
  readonly labels: readonly [string, string];
  readonly within: readonly [Bitset, Bitset];
}

/** Those named, or the last two that are counted. @throws TallyRefused */
export function* comparedPeriods(
  input: TallyInput,
  { column: ref, period, calendar, ...asked }: NonNullable<RankingSpec['change']>,
  selection: Bitset,
): Task<Compared> {
  const column = columnFor(input.table, ref);
  if (isText(column)) throw new TallyRefused(`“${column.name}” is not a date.`);
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  let latest = -Infinity;
  for (const i of recordsOf(selection)) if (column.values[i] > latest) latest = column.values[i];
  const named = (name: string | undefined, other: number): number =>
    name === undefined ? other : (periodNamed(name, period, calendar) ?? other);
  const after = named(asked.after, periodOf(Math.floor(latest / perDay), period, calendar));
  const before = named(asked.before, after - 1);
  const within = (index: number): Task<Bitset> =>
    recordsWithin(
      input,
      selection,
      latest === -Infinity ? [] : [periodCondition(ref, index, period, calendar ?? USUAL_CALENDAR)],
    );
  const label = (index: number): string =>
    Number.isFinite(index) ? periodLabel(index, period, calendar) : '';
  return {
    labels: [label(before), label(after)],
    within: [yield* within(before), yield* within(after)],
  };
}

/** The places in both periods, and how many were gained. */
export const changeColumns = ({ labels: [before, after] }: Compared): FigureColumn[] => [
  { key: 'placeBefore', title: `Place in ${before}`, unit: '', type: 'rank' },
  { key: 'placeAfter', title: `Place in ${after}`, unit: '', type: 'rank' },
  {
    key: 'placeChange',
    title: 'Places gained',
    unit: '',
    type: 'number',
    decimals: 0,
    words: 'Place before − place after; none where one of them is missing.',
  },
];

/** The cells under them. */
export const changeCells = (a: number | undefined, b: number | undefined): (number | null)[] => [
  a ?? null,
  b ?? null,
  a === undefined || b === undefined ? null : a - b,
];

/** Places of groups in two periods. */
export function* changes(
  input: TallyInput,
  tree: GroupTree,
  spec: RankingSpec,
  selection: Bitset,
  parentOf: (group: number) => number,
): Task<Change> {
  const { change } = spec;
  if (!change) return { columns: [], cells: () => [], marks: () => [] };
  const compared = yield* comparedPeriods(input, change, selection);
  const places: Map<number, number>[] = [];
  const marks: ((group: number, at: number) => Mark[])[] = [];
  const [of] = yield* measureColumns([spec.by], input.table, recordsOf(selection));
  for (const within of compared.within) {
    const figures = yield* figuresIn(input, tree, spec, within);
    const level = tree.levels.length - 1;
    const values = figures.levels[level][0];
    const map = new Map<number, number>();
    const ofParents = yield* ranked(tree, level, values, figures, parentOf, spec);
    for (const { order } of ofParents.values()) {
      const at = yield* placesOf(values, order, spec.ties);
      yield* inStretches(order.length, (from, to) => {
        for (let k = from; k < to; k++) map.set(order[k], at[k]);
      });
    }
    places.push(map);
    const orders = new Map([...ofParents].flatMap(([, { order }]) => order.map((g) => [g, order])));
    marks.push((g, at) =>
      placeMark(
        input.table,
        of,
        figures.influences.at(level + 1, 0, g),
        values,
        g,
        orders.get(g) ?? [],
        spec.from,
        at,
      ),
    );
  }
  const [was, is] = places;
  return {
    columns: changeColumns(compared),
    cells: (g) => changeCells(was.get(g), is.get(g)),
    marks: (g, at) => marks.flatMap((of, k) => of(g, at + k)),
  };
}
