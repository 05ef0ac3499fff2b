import type { Condition } from '../../../selection/condition';
import { recordNumber, recordPlace } from '../../../table/recordNumber';
import type { Table } from '../../../table/table';
import { warn } from '../../trust/warnings';
import { TallyRefused } from '../../../errors';
import { partOf, type Task } from '../../../task/task';
import { counted } from '../../../table/format';
import { tableOf } from '../../answer/answer';
import type { TallyInput } from '../../input/input';
import { type TallyAnswer, type TallyKind } from '../../kind/kind';
import { olderBase } from '../../input/olderInput';
import { figureOf, type FigureColumn, type FigureRow, type FigureTable } from '../../answer/result';
import { simpleKind } from '../../kind/simpleKinds';
import { visitAll } from '../../spec/visit';
import { allOf } from '../../spec/whereCondition';
import { comparisonFact } from './fact';
import { addDifferences, type FigureDifference } from './figureDifferences';
import { comparisonSentence } from './sentence';
import type { ComparisonSpec } from './spec';
import { matchRecords, type Matched } from './match';
import { tracer } from './trace';

export const comparisonKind: TallyKind<ComparisonSpec> = {
  ofReadings: true,
  check(spec, faults, path) {
    simpleKind(spec.tally).check(faults, `${path}.tally`);
    spec.match.forEach((ref, k) => faults.column(`${path}.match[${k}]`, ref));
  },
  visit(spec, visitor, path) {
    visitor.list?.(spec.with, `${path}.with`);
    if (spec.to !== undefined) visitor.list?.(spec.to, `${path}.to`);
    return {
      ...spec,
      match: visitAll(spec.match, visitor.column, `${path}.match`),
      tally: simpleKind(spec.tally).visit(visitor, `${path}.tally`),
    };
  },
  compute: computeComparison,
  sentence: comparisonSentence,
  fact: comparisonFact,
  drawnWhole: () => ['main'],
};

/** Moved figures that are traced to their records; more are listed without. */
const MOST_TRACED = 2000;

function* computeComparison(asked: TallyInput, spec: ComparisonSpec): Task<TallyAnswer> {
  const { input, before, matched } = yield* sidesOf(asked, spec);
  // Records of another reading are none of the list that is asked.
  const opened = (records: readonly number[]): Condition =>
    numbered(input === asked ? records : []);
  const now = yield* partOf(simpleKind(spec.tally).compute(input), 0, 0.5);
  const then = yield* partOf(simpleKind(spec.tally).compute(before), 0.5, 1);
  yield undefined;
  const { movers, trace } = yield* tracer(input, before, spec, matched);
  let explained = 0;
  let unexplained = '';
  const moved: FigureDifference[] = [];
  for (const table of now.tables) {
    const past = then.tables.find((t) => t.name === table.name);
    if (past) yield* addDifferences(moved, table, past, spec.unmoved);
  }
  const rows: FigureRow[] = [];
  for (const [k, figure] of moved.entries()) {
    const traced = k < MOST_TRACED ? yield* trace(figure) : null;
    const left = traced?.amounts?.left;
    if (left === 0) explained++;
    else if (left !== undefined) unexplained ||= `${figure.where}, ${figure.title}`;
    rows.push({
      kind: 'group',
      level: 0,
      cells: [
        figure.where,
        figure.title,
        figure.before,
        figure.after,
        figure.difference,
        figureOf(
          figure.difference === null || typeof figure.before !== 'number' || figure.before === 0
            ? NaN
            : figure.difference / Math.abs(figure.before),
        ),
        traced?.added ?? null,
        traced?.amounts?.added ?? null,
        traced?.gone ?? null,
        traced?.amounts?.gone ?? null,
        traced?.changed ?? null,
        traced?.amounts?.changed ?? null,
        traced?.amounts?.left ?? null,
      ],
      // Those that are not traced open to all of their records.
      where:
        traced || input !== asked
          ? opened(traced?.records ?? [])
          : (allOf([figure.rowWhere, figure.columnWhere]) ?? undefined),
    });
  }
  return {
    tables: [
      {
        ...tableOf({
          name: 'main',
          caption: 'Figures that moved',
          labels: 2,
          columns: COLUMNS,
          rows,
        }),
        opens: true,
      },
      tableOf(recordsTable(matched, opened)),
    ],
    warnings: [
      warn(
        'moved',
        `${counted(moved.filter((m) => m.moved).length, 'figure')} moved: ${counted(matched.added.length, 'record')} came, ${matched.gone.length} went, ${matched.changed.after.length} changed.`,
      ),
      ...(unexplained
        ? [warn('left-over', `The records do not explain all of ${unexplained}: see “Left over”.`)]
        : explained
          ? [
              warn(
                'explained',
                `The records explain every difference of ${counted(explained, 'figure')} that adds up.`,
              ),
            ]
          : []),
      ...(moved.length > MOST_TRACED
        ? [warn('not-all-traced', `Records are counted for the first ${MOST_TRACED} figures only.`)]
        : []),
      ...now.warnings,
    ],
    *movedBy(row) {
      return {
        ...moved[row],
        newer: input.table,
        here: input === asked,
        older: before.table,
        match: spec.match,
        movers: yield* movers(moved[row]),
      };
    },
  };
}

/** The two readings as the bench counts them, and how their records correspond. */
interface Sides {
  readonly input: TallyInput;
  readonly before: TallyInput;
  readonly matched: Matched;
}

function* sidesOf(asked: TallyInput, spec: ComparisonSpec): Task<Sides> {
  const tableNamed = (name: string): Table => {
    const table = asked.others.get(name);
    if (!table) throw new TallyRefused(`The reading “${name}” is not at hand.`);
    return table;
  };
  // Records set aside or named by number are the same ones in another reading.
  const follow =
    ({ older }: Matched) =>
    (numbers: readonly number[]): number[] =>
      numbers.flatMap((n) => {
        const at = older[recordPlace(n)] ?? -1;
        return at < 0 ? [] : [recordNumber(at)];
      });
  const { with: name, to, match } = spec;
  const older = tableNamed(name);
  const own = yield* matchRecords(older, asked.table, match);
  const before = yield* olderBase(asked, older, follow(own), name);
  if (to === undefined) return { input: asked, before, matched: own };
  const newer = tableNamed(to);
  const onNewer = follow(yield* matchRecords(newer, asked.table, match));
  return {
    input: yield* olderBase(asked, newer, onNewer, to),
    before,
    matched: yield* matchRecords(older, newer, match),
  };
}

const COLUMNS: FigureColumn[] = [
  { key: 'where', title: 'Where', unit: '', type: 'text' },
  { key: 'figure', title: 'Figure', unit: '', type: 'text' },
  { key: 'before', title: 'Before', unit: '', type: 'number', words: 'In the older reading.' },
  { key: 'after', title: 'After', unit: '', type: 'number', words: 'In the newer reading.' },
  { key: 'difference', title: 'Difference', unit: '', type: 'number', words: 'After − before.' },
  {
    key: 'change',
    title: 'Change',
    unit: '',
    type: 'share',
    words: 'Difference ÷ the size of the figure before.',
  },
  {
    key: 'added',
    title: 'Came',
    unit: '',
    type: 'count',
    words: 'Records of the figure that the older reading has not.',
  },
  {
    key: 'addedBy',
    title: 'By coming',
    unit: '',
    type: 'number',
    words: 'What those that came add.',
  },
  {
    key: 'gone',
    title: 'Went',
    unit: '',
    type: 'count',
    words: 'Records of the figure that the newer reading has no more.',
  },
  {
    key: 'goneBy',
    title: 'By going',
    unit: '',
    type: 'number',
    words: 'What those that went took away.',
  },
  {
    key: 'changed',
    title: 'Changed',
    unit: '',
    type: 'count',
    words:
      'Records in both readings with another value somewhere, or counted in one of them alone.',
  },
  {
    key: 'changedBy',
    title: 'By changing',
    unit: '',
    type: 'number',
    words:
      'What those in both readings moved it by: with another value, or counted in one of them alone.',
  },
  {
    key: 'left',
    title: 'Left over',
    unit: '',
    type: 'number',
    words: 'Difference less what came, went and changed: 0 where the records explain all of it.',
  },
];

/** Records by their places as a condition. */
const numbered = (places: readonly number[]): Condition => ({
  kind: 'records',
  not: false,
  records: places.map(recordNumber),
});

/** How the records of the two readings correspond, as a small table. */
function recordsTable(
  matched: Matched,
  opened: (records: readonly number[]) => Condition,
): FigureTable {
  const row = (label: string, n: number, records?: Int32Array): FigureRow => ({
    kind: 'group',
    level: 0,
    cells: [label, n],
    ...(records && { where: opened([...records]) }),
  });
  return {
    name: 'records',
    caption: 'Records of the two readings',
    labels: 1,
    columns: [
      { key: 'what', title: 'Records', unit: '', type: 'text' },
      {
        key: 'count',
        title: 'Count',
        unit: '',
        type: 'count',
        words: 'Counted over whole readings, whatever is narrowed.',
      },
    ],
    rows: [
      row('came', matched.added.length, matched.added),
      row('went', matched.gone.length),
      row('changed', matched.changed.after.length, matched.changed.after),
      row('unchanged', matched.same),
    ],
  };
}
