import { buildTree } from '../../../arrange/tree';
import { columnFor } from '../../../expression/columnFor';
import { leafGrouping, totalGrouping } from '../../../measure/grouping';
import { type Measure, MEASURES, measureWords, suits } from '../../../measure/measure';
import { countLeaves } from '../../../measure/compute';
import { partOf, type Task } from '../../../task/task';
import { counted } from '../../../table/format';
import { madeRows, tableOf } from '../../answer/answer';
import { recordsOf, selectionOf, type TallyInput, orderedFor } from '../../input/input';
import {
  figureFrom,
  labelColumn,
  measureColumn,
  shownColumn,
  RECORDS_COLUMN,
} from '../../answer/figure';
import { checkKey, codesOf, MOST_GROUPS, refuseTooMany } from '../../groups/keys';
import { type TallyAnswer, type TallyKind } from '../../kind/kind';
import { computeInfluences, influenceMarks } from '../../trust/influence';
import {
  figureOf,
  marked,
  type FigureColumn,
  type FigureRow,
  type Mark,
} from '../../answer/result';
import { leavesInOrder } from '../../groups/sortedGroups';
import { visitAll, visitOptional } from '../../spec/visit';
import { spreadFact } from './fact';
import { spreadSentence } from './sentence';
import type { SpreadSpec } from './spec';
import { recordCount } from '../../../table/recordCounts';

export const spreadKind: TallyKind<SpreadSpec> = {
  inParts: () => true,
  columnsForeseen: true,
  check(spec, faults, path) {
    spec.columns.forEach((ref, k) => faults.column(`${path}.columns[${k}]`, ref));
    if (spec.key) checkKey(spec.key, faults, `${path}.key`);
  },
  visit(spec, visitor, path) {
    return {
      ...spec,
      columns: visitAll(spec.columns, visitor.column, `${path}.columns`),
      ...(spec.key && { key: visitOptional(spec.key, visitor.key, `${path}.key`) }),
    };
  },
  compute: computeSpread,
  sentence: spreadSentence,
  fact: spreadFact,
};

function* computeSpread(input: TallyInput, spec: SpreadSpec): Task<TallyAnswer> {
  const { table } = input;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const all = recordCount(table, records);
  const ordered = yield* orderedFor(input, selection, spec.facts);
  const keyGroups = spec.key ? yield* codesOf(input, spec.key, selection) : null;
  const tree = yield* buildTree(table.length, keyGroups ? [keyGroups.codes] : []);
  refuseTooMany(tree.leaves * spec.columns.length, 'rows', MOST_GROUPS);
  yield undefined;
  const leafed = { table, records, ordered, leafOf: tree.leafOf, leaves: tree.leaves };
  const counts = yield* countLeaves(leafed);
  const groups = keyGroups ? yield* leavesInOrder(tree, counts) : [];
  const rows: FigureRow[] = [];
  for (const [k, ref] of spec.columns.entries()) {
    const column = columnFor(table, ref);
    const asked = spec.facts.map((fact): Measure => ({ ...fact, column: ref }));
    const fitting = asked.filter((m) => suits(m.kind, column));
    const groupings = [totalGrouping(tree.leaves), leafGrouping(tree.leaves)];
    const {
      figures: [whole, byLeaf],
      influences,
    } = yield* partOf(
      computeInfluences(leafed, groupings, fitting),
      k / spec.columns.length,
      (k + 1) / spec.columns.length,
    );
    const shownIn = fitting.map((m) => shownColumn(m, table));
    const figureColumns = fitting.map((measure) => ({
      ...measureColumn(measure, table, ''),
      measure,
    }));
    const restMarks = (grouping: number, group: number): Mark[] =>
      fitting.flatMap((measure, f) =>
        influenceMarks(
          table,
          figureColumns[f],
          (keyGroups ? 3 : 2) + asked.indexOf(measure),
          influences.at(grouping, f, group),
        ),
      );
    const deviations = (grouping: number, group: number): FigureRow['deviations'] =>
      fitting.flatMap((measure, f) => {
        const rests = measure.kind === 'mean' ? influences.at(grouping, f, group) : null;
        const place = (keyGroups ? 3 : 2) + asked.indexOf(measure);
        return rests ? [{ column: place, value: figureOf(rests.deviation) }] : [];
      });
    const row = (
      kind: FigureRow['kind'],
      level: number,
      label: string | null,
      n: number,
      figures: readonly Float64Array[],
      at: number,
    ): FigureRow => {
      const marks: Mark[] = restMarks(figures === whole ? 0 : 1, at);
      if (n > 0 && n < spec.few) marks.unshift({ kind: 'few', words: counted(n, 'record') });
      const values = fitting.map((m, f) => figureFrom(m, shownIn[f], figures[f][at]));
      return {
        kind,
        level,
        cells: [
          column.name,
          ...(keyGroups ? [label] : []),
          n,
          ...asked.map((m) => (fitting.includes(m) ? values[fitting.indexOf(m)] : null)),
        ],
        ...marked(marks),
        deviations: deviations(figures === whole ? 0 : 1, at),
        ...(spec.columns.length > 1 && {
          measures: fitting.map((measure) => ({
            column: (keyGroups ? 3 : 2) + asked.indexOf(measure),
            measure,
          })),
        }),
      };
    };
    rows.push({
      ...row(keyGroups ? 'total' : 'group', 0, keyGroups ? 'All' : null, all, whole, 0),
      keys: [column.name],
    });
    const rowOf = (leaf: number): FigureRow => {
      const code = tree.levels[0].code[leaf];
      return {
        ...row('group', 1, keyGroups?.codes.label(code) ?? null, counts[leaf], byLeaf, leaf),
        ...(keyGroups && {
          keys: [column.name, keyGroups.codes.key(code)],
          where: keyGroups.codes.where(code),
        }),
      };
    };
    yield* madeRows(groups, rowOf, rows);
  }
  const columns: FigureColumn[] = [
    { key: 'column', title: 'Column', unit: '', type: 'text' },
    ...(spec.key && keyGroups ? [labelColumn('group', spec.key, keyGroups.codes, table)] : []),
    { ...RECORDS_COLUMN, adds: undefined },
    ...spec.facts.map((fact, k): FigureColumn => ({
      key: `f${k + 1}`,
      title: measureWords(fact),
      unit: '',
      type:
        MEASURES[fact.kind].figure === 'count'
          ? 'count'
          : spec.columns.length === 1
            ? measureColumn({ ...fact, column: spec.columns[0] }, table, '').type
            : 'number',
      ...(spec.columns.length === 1 && { measure: { ...fact, column: spec.columns[0] } }),
      words: `${measureWords(fact)} of the row’s column.`,
    })),
  ];
  return {
    tables: [
      {
        ...tableOf({ name: 'main', caption: 'Spread', labels: spec.key ? 2 : 1, columns, rows }),
        groups: rows.length - (keyGroups ? spec.columns.length : 0),
        opens: true,
      },
    ],
    warnings: keyGroups?.warnings ?? [],
  };
}
