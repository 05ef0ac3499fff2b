import { partOf, type Task } from '../../../task/task';
import { counted, showCount } from '../../../table/format';
import { tableOf } from '../../answer/answer';
import { measureColumn, roundingBound } from '../../answer/figure';
import { checkKey, keyColumns } from '../../groups/keys';
import { sideFigures } from '../../groups/sideFigures';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { recordsWithin } from '../../input/recordsWithin';
import { members } from '../../../table/bitset';
import type { TallyAnswer, TallyKind } from '../../kind/kind';
import { visitAll, visitNeeded } from '../../spec/visit';
import { warn, type Warning } from '../../trust/warnings';
import { checkNumber, otherSideOf } from './otherSide';
import { pairsOf } from './pairs';
import { reconciliationFact } from './fact';
import { compared, reconciliationColumns, reconciliationRows, told, type Compared } from './rows';
import { reconciliationSentence } from './sentence';
import type { ReconciliationSpec } from './spec';

export const reconciliationKind: TallyKind<ReconciliationSpec> = {
  ofOtherLists: true,
  check(spec, faults, path) {
    faults.measure(`${path}.measure`, spec.measure, []);
    checkNumber(spec.measure, faults, `${path}.measure`);
    spec.by.forEach((key, k) => checkKey(key, faults, `${path}.by[${k}]`));
  },
  visit(spec, visitor, path) {
    visitor.list?.(spec.with, `${path}.with`);
    return {
      ...spec,
      measure: visitNeeded(spec.measure, visitor.measure, `${path}.measure`),
      by: visitAll(spec.by, visitor.key, `${path}.by`),
    };
  },
  compute: computeReconciliation,
  sentence: reconciliationSentence,
  fact: reconciliationFact,
  drawnWhole: () => ['main'],
};

function* computeReconciliation(input: TallyInput, spec: ReconciliationSpec): Task<TallyAnswer> {
  const other = otherSideOf(input, spec);
  const selection = selectionOf(input, spec.scope);
  const here = yield* partOf(sideFigures({ input, selection }, spec), 0, 0.5);
  const there = yield* partOf(sideFigures(other, other), 0.5, 1);
  const { pairs, loosely } = pairsOf(here, there);
  yield undefined;
  const slack = {
    here: yield* roundingBound(spec.measure, input.table, recordsOf(selection)),
    there: yield* roundingBound(other.measure, other.input.table, recordsOf(other.selection)),
  };
  const whole = compared(
    {
      path: [],
      keys: [],
      hereWhere: null,
      thereWhere: null,
      here: here.total,
      there: there.total,
      uncounted: false,
    },
    spec,
    other.measure,
    slack,
  );
  const groups = inOrder(
    pairs.map((pair) => compared(pair, spec, other.measure, slack)),
    spec.order,
  );
  const labels = yield* keyColumns(input, spec.by, selection);
  const columns = [
    ...labels,
    ...reconciliationColumns(
      measureColumn(spec.measure, input.table, 'here'),
      measureColumn(other.measure, other.input.table, 'there'),
      spec,
      input.listName,
      slack,
    ),
  ];
  const toldApart = told(groups, spec);
  return {
    tables: [
      {
        ...tableOf({
          name: 'main',
          caption: `${input.listName} and ${spec.with}, side by side`,
          labels: labels.length,
          columns,
          rows: reconciliationRows(whole, toldApart, spec, columns, {
            labels: labels.length,
            listName: input.listName,
            against: other.measure,
          }),
        }),
        opens: true,
      },
    ],
    warnings: [
      ...notes(groups, spec, recordsOf(other.selection).length, loosely),
      ...totalsLeftOut(spec, input),
      ...here.warnings,
    ],
    *elsewhere(row) {
      const group = row === 0 ? whole : toldApart.shown[row - 1];
      // Those that agree are many groups in one line.
      if (!group) return null;
      const { thereWhere } = group.pair;
      const records =
        row === 0
          ? other.selection
          : thereWhere && (yield* recordsWithin(other.input, other.selection, [thereWhere]));
      return {
        list: spec.with,
        table: other.input.table,
        records: records ? members(records) : new Int32Array(0),
        columns: [
          ...other.by.map((key) => key.column),
          ...[other.measure.column, other.measure.other].flatMap((ref) => ref ?? []),
        ],
      };
    },
  };
}

/** Those furthest apart first, none of them lost that could not be compared. */
function inOrder(groups: Compared[], order: ReconciliationSpec['order']): Compared[] {
  const size = ({ difference }: Compared): number =>
    difference === difference ? Math.abs(difference) : Infinity;
  const name = ({ pair }: Compared): string => pair.path.join('\u0001');
  return groups.sort(
    (a, b) =>
      (order === 'size' ? size(b) - size(a) || 0 : 0) ||
      name(a).localeCompare(name(b), 'en', { numeric: true }),
  );
}

/** Records of the other list that look like totals of others are no records of it. */
function totalsLeftOut({ with: list }: ReconciliationSpec, { totalsAside }: TallyInput): Warning[] {
  const n = totalsAside?.get(list)?.length ?? 0;
  return n === 0
    ? []
    : [
        warn(
          'totals-left-out',
          `${counted(n, 'record')} of ${list} ${n === 1 ? 'looks like a total' : 'look like totals'} of others and ${n === 1 ? 'is' : 'are'} left out.`,
        ),
      ];
}

/** How many groups agree, lie apart, or are in one list alone. */
function notes(
  groups: readonly Compared[],
  spec: ReconciliationSpec,
  records: number,
  loosely: number,
): Warning[] {
  const of = (state: Compared['state']): number => groups.filter((g) => g.state === state).length;
  const [agree, apart] = [of('agrees'), of('over') + of('under')];
  const [here, there, none] = [
    of('only here'),
    of('only there'),
    of('no value here') + of('no value there'),
  ];
  const single = [
    ...(here ? [`${showCount(here)} ${here === 1 ? 'is' : 'are'} not in ${spec.with}`] : []),
    ...(there ? [`${showCount(there)} ${there === 1 ? 'is' : 'are'} in ${spec.with} alone`] : []),
    ...(none ? [`${showCount(none)} ${none === 1 ? 'has' : 'have'} no value on one side`] : []),
  ];
  return [
    warn(
      'side-by-side',
      `${counted(groups.length, 'group')}: ${[`${showCount(agree)} ${agree === 1 ? 'agrees' : 'agree'}`, `${showCount(apart)} ${apart === 1 ? 'lies' : 'lie'} apart`, ...single].join(', ')}. All ${counted(records, 'record')} of ${spec.with} count.`,
    ),
    ...(agree + apart === 0 && groups.length > 0
      ? [
          warn(
            'none-in-both',
            `No group is in both lists: see that the columns that meet say the same things.`,
          ),
        ]
      : []),
    ...(loosely
      ? [
          warn(
            'met-loosely',
            `${counted(loosely, 'group')} met though ${loosely === 1 ? 'its names differ' : 'their names differ'} in case or spaces.`,
          ),
        ]
      : []),
  ];
}
