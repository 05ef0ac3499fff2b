import type { Condition } from '../../scope/condition';
import { warn } from '../warnings';
import { TallyRefused } from '../../errors';
import { buildTree } from '../../arrange/tree';
import { columnFor } from '../../expression/columnFor';
import { countLeaves } from '../../measure/compute';
import {
  DEFINITION_WORDS,
  lowerBound,
  percentileRank,
  quantileBy,
  quantilePlace,
  RANK_WORDS,
  upperBound,
  type Definition,
} from '../../measure/quantileDefinitions';
import { gather } from '../../measure/slices';
import { sortedInParts } from '../../sorting/sorted';
import { pausing, type Steps } from '../../steps/steps';
import { fullScalar } from '../../table/cell';
import { isText, type ScalarColumn } from '../../table/column';
import { counted } from '../../table/format';
import { madeRows, tableOf, type AnswerTable } from '../answer';
import { recordsOf, selectionOf, type Base } from '../base';
import { labelColumn } from '../figure';
import { checkKey, codesOf, MOST_GROUPS, refuseTooMany } from '../keys';
import { type TallyAnswer, type TallyKind } from '../kind';
import { figureOf, type Figure, type FigureColumn, type FigureRow } from '../result';
import { leavesInOrder } from '../sortedGroups';
import { visitNeeded, visitOptional } from '../visit';
import { percentileFact } from './fact';
import { percentileSentence } from './sentence';
import type { PercentileSpec } from './spec';

export const percentileKind: TallyKind<PercentileSpec> = {
  check(spec, faults, path) {
    faults.column(`${path}.column`, spec.column, ['number', 'date', 'datetime', 'time']);
    if (spec.key) checkKey(spec.key, faults, `${path}.key`);
    if (spec.percentiles.length + spec.ranksOf.length === 0)
      faults.add(
        `${path}.percentiles`,
        'Nothing is asked.',
        'Name percentiles (0 to 100), or values in ranksOf.',
      );
  },
  visit(spec, visitor, path) {
    return {
      ...spec,
      column: visitNeeded(spec.column, visitor.column, `${path}.column`),
      ...(spec.key && { key: visitOptional(spec.key, visitor.key, `${path}.key`) }),
    };
  },
  compute: computePercentiles,
  sentence: percentileSentence,
  fact: percentileFact,
  shape: ({ column, key, ranksOf }) => ({ of: column, as: 'order', key, reach: ranksOf }),
  // Those of the whole are read off its curve one by one, in the order they were asked for.
  drawnWhole: ({ key }) => (key ? [] : ['main', 'ranks']),
};

/** Groups whose values are sorted between two pauses, unless one of them takes long by itself. */
const GROUPS = 1024;

/** One group's values in rising order. */
interface Ordered {
  readonly label: string | null;
  readonly key: Figure;
  readonly values: Float64Array;
  readonly where?: Condition;
}

function* computePercentiles(base: Base, spec: PercentileSpec): Steps<TallyAnswer> {
  const { table } = base;
  const column = columnFor(table, spec.column);
  if (isText(column)) throw new TallyRefused(`“${column.name}” is text and has no percentiles.`);
  const selection = selectionOf(base, spec.scope);
  const records = recordsOf(selection);
  const coded = spec.key ? yield* codesOf(base, spec.key, selection) : null;
  const tree = yield* buildTree(table.length, coded ? [coded.codes] : []);
  refuseTooMany(tree.leaves * Math.max(1, spec.percentiles.length), 'rows', MOST_GROUPS);
  yield undefined;
  const slices = yield* gather(column.values, tree.leafOf, tree.leaves, records);
  const counts = yield* countLeaves({
    table,
    records,
    ordered: records,
    leafOf: tree.leafOf,
    leaves: tree.leaves,
  });
  const groups: Ordered[] = [];
  let few = 0;
  const leaves = coded ? yield* leavesInOrder(tree, counts) : [...counts.keys()];
  const due = pausing(GROUPS);
  for (const [k, leaf] of leaves.entries()) {
    const values = yield* sortedInParts(
      slices.values.subarray(slices.start[leaf], slices.start[leaf + 1]),
    );
    const code = coded ? tree.levels[0].code[leaf] : 0;
    groups.push({
      label: coded ? coded.codes.label(code) : null,
      key: coded ? coded.codes.key(code) : null,
      values,
      ...(coded && { where: coded.codes.where(code) }),
    });
    if (values.length > 0 && values.length < spec.few) few++;
    if (due(k)) yield (k + 1) / leaves.length;
  }
  const labels = spec.key && coded ? [labelColumn('group', spec.key, coded.codes, table)] : [];
  return {
    tables: [
      ...(spec.percentiles.length ? [yield* percentileTable(labels, spec, column, groups)] : []),
      ...(spec.ranksOf.length ? [yield* rankTable(labels, spec, column, groups)] : []),
    ],
    warnings: [
      ...(coded?.warnings ?? []),
      ...(few > 0
        ? [
            warn(
              'few-values',
              `${counted(few, 'group')} rest${few === 1 ? 's' : ''} on fewer than ${counted(spec.few, 'value')}.`,
            ),
          ]
        : []),
    ],
  };
}

function* percentileTable(
  labels: readonly FigureColumn[],
  spec: PercentileSpec,
  column: ScalarColumn,
  groups: readonly Ordered[],
): Steps<AnswerTable> {
  const definition = spec.definition as Definition;
  const write = (v: number): Figure => writeValue(column, v);
  const rows = yield* madeRows(groups, ({ label, key, values, where }) =>
    spec.percentiles.map((percent): FigureRow => {
      const n = values.length;
      const p = percent / 100;
      const q = quantileBy(values, p, definition);
      const { j, at } = n ? quantilePlace(n, p, definition) : { j: NaN, at: NaN };
      const neighbour = (k: number): Figure =>
        n ? write(values[Math.min(n, Math.max(1, k)) - 1]) : null;
      return {
        kind: 'group',
        level: 0,
        cells: [
          ...(spec.key ? [label] : []),
          percent,
          write(q),
          n,
          figureOf(Math.min(n, Math.max(1, at))),
          neighbour(j),
          neighbour(j + 1),
          n ? upperBound(values, q) - lowerBound(values, q) : 0,
        ],
        keys: [...(spec.key ? [key] : []), percent],
        ...(where && { where }),
      };
    }),
  );
  const type = column.type;
  const value = (key: string, title: string, words: string): FigureColumn => ({
    key,
    title,
    unit: column.unit,
    type,
    decimals: column.decimals,
    words,
  });
  const columns: FigureColumn[] = [
    ...labels,
    { key: 'percentile', title: 'Percentile', unit: '%', type: 'number' },
    value(
      'value',
      `Value of ${column.name}`,
      `Definition ${definition}: ${DEFINITION_WORDS[definition]}.`,
    ),
    {
      key: 'values',
      title: 'Values',
      unit: '',
      type: 'count',
      measure: { kind: 'values', column: spec.column },
    },
    {
      key: 'place',
      title: 'Place in order',
      unit: '',
      type: 'number',
      decimals: 2,
      words: 'Where it falls among the ordered values, the first being 1.',
    },
    value('below', 'Value before', 'The ordered value at or before that place.'),
    value('above', 'Value behind', 'The ordered value behind it.'),
    {
      key: 'ties',
      title: 'Values equal to it',
      unit: '',
      type: 'count',
      words: 'Values that are exactly this one.',
    },
  ];
  return tableOf({
    name: 'main',
    caption: 'Percentiles',
    labels: spec.key ? 2 : 1,
    columns,
    rows,
  });
}

function* rankTable(
  labels: readonly FigureColumn[],
  spec: PercentileSpec,
  column: ScalarColumn,
  groups: readonly Ordered[],
): Steps<AnswerTable> {
  const rows = yield* madeRows(groups, ({ label, key, values, where }) =>
    spec.ranksOf.map((v): FigureRow => {
      const [under, atOrUnder] = [lowerBound(values, v), upperBound(values, v)];
      return {
        kind: 'group',
        level: 0,
        cells: [
          ...(spec.key ? [label] : []),
          writeValue(column, v),
          figureOf(percentileRank(values, v, spec.rankMethod)),
          values.length,
          under,
          atOrUnder - under,
        ],
        keys: [...(spec.key ? [key] : []), writeValue(column, v)],
        ...(where && { where }),
      };
    }),
  );
  const columns: FigureColumn[] = [
    ...labels,
    {
      key: 'value',
      title: column.name,
      unit: column.unit,
      type: column.type,
      decimals: column.decimals,
    },
    {
      key: 'rank',
      title: 'Percentile rank',
      unit: '',
      type: 'share',
      words: `${RANK_WORDS[spec.rankMethod]}.`,
    },
    {
      key: 'values',
      title: 'Values',
      unit: '',
      type: 'count',
      measure: { kind: 'values', column: spec.column },
    },
    {
      key: 'under',
      title: 'Values under it',
      unit: '',
      type: 'count',
      words: 'Values lower than this one.',
    },
    {
      key: 'ties',
      title: 'Values equal to it',
      unit: '',
      type: 'count',
      words: 'Values that are exactly this one.',
    },
  ];
  return tableOf({
    name: 'ranks',
    caption: 'Percentile ranks',
    labels: spec.key ? 2 : 1,
    columns,
    rows,
  });
}

const writeValue = (column: ScalarColumn, v: number): Figure =>
  v !== v ? null : column.type === 'number' ? figureOf(v) : fullScalar(column, Math.round(v));
