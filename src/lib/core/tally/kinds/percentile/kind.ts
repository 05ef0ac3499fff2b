import { warn } from '../../trust/warnings';
import { TallyRefused } from '../../../errors';
import { buildTree } from '../../../arrange/tree';
import { columnFor } from '../../../expression/columnFor';
import { countLeaves } from '../../../measure/compute';
import { gather } from '../../../measure/slices';
import { sortedInParts } from '../../../sorting/sorted';
import { pausing, type Task } from '../../../task/task';
import { isText } from '../../../table/column';
import { counted } from '../../../table/format';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { labelColumn } from '../../answer/figure';
import { checkKey, codesOf, MOST_GROUPS, refuseTooMany } from '../../groups/keys';
import { type TallyAnswer, type TallyKind } from '../../kind/kind';
import { leavesInOrder } from '../../groups/sortedGroups';
import { visitNeeded, visitOptional } from '../../spec/visit';
import { percentileFact } from './fact';
import { percentileSentence } from './sentence';
import type { PercentileSpec } from './spec';
import { percentileTable, rankTable, type Ordered } from './tables';

export const percentileKind: TallyKind<PercentileSpec> = {
  inParts: () => true,
  columnsForeseen: true,
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

function* computePercentiles(input: TallyInput, asked: PercentileSpec): Task<TallyAnswer> {
  // What is asked twice is one row.
  const [percentiles, ranksOf] = [[...new Set(asked.percentiles)], [...new Set(asked.ranksOf)]];
  const spec = { ...asked, percentiles, ranksOf };
  const { table } = input;
  const column = columnFor(table, spec.column);
  if (isText(column)) throw new TallyRefused(`“${column.name}” is text and has no percentiles.`);
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const keyGroups = spec.key ? yield* codesOf(input, spec.key, selection) : null;
  const tree = yield* buildTree(table.length, keyGroups ? [keyGroups.codes] : []);
  refuseTooMany(tree.leaves * Math.max(1, spec.percentiles.length), 'rows', MOST_GROUPS);
  yield undefined;
  const slices = yield* gather(column.values, tree.leafOf, tree.leaves, records, table.weights);
  const counts = yield* countLeaves({
    table,
    records,
    ordered: records,
    leafOf: tree.leafOf,
    leaves: tree.leaves,
  });
  const groups: Ordered[] = [];
  let few = 0;
  const leaves = keyGroups ? yield* leavesInOrder(tree, counts) : [...counts.keys()];
  const due = pausing(GROUPS);
  for (const [k, leaf] of leaves.entries()) {
    const values = yield* sortedInParts(
      slices.values.subarray(slices.start[leaf], slices.start[leaf + 1]),
    );
    const code = keyGroups ? tree.levels[0].code[leaf] : 0;
    groups.push({
      label: keyGroups ? keyGroups.codes.label(code) : null,
      key: keyGroups ? keyGroups.codes.key(code) : null,
      values,
      ...(keyGroups && { where: keyGroups.codes.where(code) }),
    });
    if (values.length > 0 && values.length < spec.few) few++;
    if (due(k)) yield (k + 1) / leaves.length;
  }
  const labels =
    spec.key && keyGroups ? [labelColumn('group', spec.key, keyGroups.codes, table)] : [];
  return {
    tables: [
      ...(spec.percentiles.length ? [yield* percentileTable(labels, spec, column, groups)] : []),
      ...(spec.ranksOf.length ? [yield* rankTable(labels, spec, column, groups)] : []),
    ],
    warnings: [
      ...(keyGroups?.warnings ?? []),
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
