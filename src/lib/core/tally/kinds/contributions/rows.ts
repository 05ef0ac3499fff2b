import { MEASURES } from '../../../measure/measure';
import type { Condition } from '../../../selection/condition';
import { CompensatedSum } from '../../../measure/compensated';
import { counted } from '../../../table/format';
import type { TallyInput } from '../../input/input';
import { changeMark } from '../../trust/changeMark';
import { deviationsOf, gapsMark, type Coverage } from '../../trust/influence';
import {
  figureOf,
  marked,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type Mark,
} from '../../answer/result';
import { allOf, anyOf, noneOf } from '../../spec/whereCondition';
import type { SideFigure } from '../../groups/sideFigures';
import type { Contribution, Contributions } from './figures';
import type { Side, Sides } from './sides';
import type { ContributionsSpec } from './spec';

/** Figures of both sides, and what each group gave; of a mean, by its own mean and by its weight. */
export function contributionColumns(
  { measure }: ContributionsSpec,
  { before, after }: Sides,
  value: FigureColumn,
  { groups }: Contributions,
): FigureColumn[] {
  const { measure: _, adds: _adds, ...plain } = value;
  const bound = 2 ** -52 * groups.length * groups.reduce((s, g) => s + magnitude(g), 0);
  const adds = MEASURES[measure.kind].adds;
  const amount = (key: string, title: string, words: string): FigureColumn => ({
    ...plain,
    key,
    title,
    type: 'number',
    words,
    reach: [0],
    adds: { bound },
  });
  const count = (key: string, side: Side): FigureColumn => ({
    key,
    title: `Values, ${side.words}`,
    unit: '',
    type: 'count',
    reach: [0],
    adds: { bound: 0 },
    words: 'Values that the mean stands on: its weight.',
  });
  const side = (key: string, of: Side): FigureColumn => ({
    ...value,
    key,
    title: `${value.title}, ${of.words}`,
    ...(adds ? { adds: { bound } } : { adds: undefined }),
  });
  return [
    side('before', before),
    side('after', after),
    ...(adds
      ? []
      : [
          count('valuesBefore', before),
          count('valuesAfter', after),
          amount(
            'own',
            'By its own mean',
            'The change of the group’s mean times the mean of its two weights.',
          ),
          amount(
            'weight',
            'By its weight',
            'The change of the group’s weight times how far its mean lies from the whole.',
          ),
        ]),
    amount('gave', 'Contribution', 'What the group contributes to the change of the whole.'),
    {
      key: 'share',
      title: 'Share of the change',
      unit: '',
      type: 'share',
      reach: [0],
      adds: { bound: 1e-9 },
      words: 'Its contribution ÷ the change of the whole.',
    },
  ];
}

const magnitude = (g: Contribution): number =>
  Math.abs(g.own) +
  Math.abs(g.weight) +
  orZero(Math.abs(g.before.figure) + Math.abs(g.after.figure));

const orZero = (v: number): number => (v === v ? v : 0);

/** The change of the whole first, then the groups, and the others in one line. */
export function contributionRows(
  input: TallyInput,
  spec: ContributionsSpec,
  sides: Sides,
  found: Contributions,
  columns: readonly FigureColumn[],
  labels: number,
): FigureRow[] {
  const adds = MEASURES[spec.measure.kind].adds;
  const change = found.after.figure - found.before.figure;
  const shown = spec.top === undefined ? found.groups : found.groups.slice(0, spec.top);
  const rest = found.groups.slice(shown.length);
  const cells = (
    before: Pick<SideFigure, 'figure' | 'values'>,
    after: Pick<SideFigure, 'figure' | 'values'>,
    gave: { own: number; weight: number; gave: number },
  ): Figure[] => [
    figureOf(before.figure),
    figureOf(after.figure),
    ...(adds ? [] : [before.values, after.values, figureOf(gave.own), figureOf(gave.weight)]),
    figureOf(gave.gave),
    figureOf(change === 0 ? NaN : gave.gave / change),
  ];
  const marks = (before: SideFigure, after: SideFigure): Mark[] => {
    const at = columns.findIndex((c) => c.key === 'gave');
    // What a group gives to a mean does not turn on its own two figures alone.
    if (!adds) return [];
    return [
      ...changeMark(input.table, columns[labels], columns[at], at, {
        before: orZero(before.figure),
        after: orZero(after.figure),
        ofBefore: sides.before.here ? before.rests : null,
        ofAfter: after.rests,
      }),
      ...gaps(before, after),
    ];
  };
  const gaps = (before: Coverage, after: Coverage): Mark[] => [
    ...gapsMark(spec.measure, labels, before),
    ...gapsMark(spec.measure, labels + 1, after),
  ];
  const deviations = (before: SideFigure, after: SideFigure): Pick<FigureRow, 'deviations'> =>
    deviationsOf(columns, [
      [labels, before.rests],
      [labels + 1, after.rests],
    ]);
  const rows: FigureRow[] = [
    {
      kind: 'total',
      level: 0,
      keys: [],
      cells: [
        'Change',
        ...Array.from({ length: labels - 1 }, () => null),
        ...cells(found.before, found.after, {
          own: summed(found.groups, (g) => g.own),
          weight: summed(found.groups, (g) => g.weight),
          gave: change,
        }),
      ],
      ...recordsOfRow(sides, columns, null),
      ...marked(marks(found.before, found.after)),
      ...deviations(found.before, found.after),
    },
    ...shown.map((group): FigureRow => ({
      kind: 'group',
      level: 1,
      partOf: 0,
      keys: [...group.keys],
      cells: [...group.path, ...cells(group.before, group.after, group)],
      ...recordsOfRow(sides, columns, group.where),
      ...marked(marks(group.before, group.after)),
      ...deviations(group.before, group.after),
    })),
  ];
  const others = { before: merged(rest, 'before', adds), after: merged(rest, 'after', adds) };
  if (rest.length)
    rows.push({
      kind: 'others',
      level: 1,
      partOf: 0,
      stands: rest.length,
      // One more than a group has: a blank group is another row.
      keys: Array.from({ length: labels + 1 }, () => null),
      cells: [
        ...Array.from({ length: labels - 1 }, () => null),
        counted(rest.length, 'other'),
        ...cells(others.before, others.after, {
          own: summed(rest, (g) => g.own),
          weight: summed(rest, (g) => g.weight),
          gave: summed(rest, (g) => g.gave),
        }),
      ],
      ...recordsOfRow(sides, columns, noneOf(shown.map((g) => g.where))),
      ...marked(gaps(others.before, others.after)),
    });
  return rows;
}

function summed(groups: readonly Contribution[], of: (g: Contribution) => number): number {
  const sum = new CompensatedSum();
  for (const group of groups) sum.add(of(group));
  return sum.value;
}

/** The figure of several groups together: their sum, or the mean of their values. */
function merged(
  groups: readonly Contribution[],
  side: 'before' | 'after',
  adds: boolean,
): Pick<SideFigure, 'figure' | 'values' | 'records'> {
  const records = summed(groups, (g) => g[side].records);
  const values = summed(groups, (g) => g[side].values);
  const total = summed(
    groups,
    (g) => orZero(g[side].figure) * (adds || g[side].values === 0 ? 1 : g[side].values),
  );
  return { values, records, figure: adds ? total : values ? total / values : NaN };
}

/** The records of a row: of both sides, and of each side under its own figures. */
function recordsOfRow(
  { before, after }: Sides,
  columns: readonly FigureColumn[],
  group: Condition | null,
): Pick<FigureRow, 'where' | 'instead'> {
  const within = (side: Side): Condition | null =>
    side.here ? allOf([group ?? undefined, side.where ?? undefined]) : NO_RECORD;
  const [first, second] = [within(before), within(after)];
  const places = (keys: readonly string[]): number[] =>
    keys.map((key) => columns.findIndex((c) => c.key === key)).filter((at) => at >= 0);
  const both = before.here
    ? [first, second].flatMap((w) => w ?? [])
    : [second].flatMap((w) => w ?? []);
  return {
    ...(both.length && { where: anyOf(both) }),
    instead: [
      ...(first ? [{ columns: places(['before', 'valuesBefore']), where: first }] : []),
      ...(second ? [{ columns: places(['after', 'valuesAfter']), where: second }] : []),
    ],
  };
}

/** Records of another reading are none of this list's. */
const NO_RECORD: Condition = { kind: 'records', not: false, records: [] };
