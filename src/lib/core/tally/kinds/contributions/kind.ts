import { MEASURES } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import { counted, showShare } from '../../../table/format';
import { tableOf } from '../../answer/answer';
import { selectionOf, type TallyInput } from '../../input/input';
import { measureColumn } from '../../answer/figure';
import { checkKey, keyColumns } from '../../groups/keys';
import type { TallyAnswer, TallyKind } from '../../kind/kind';
import { checkPeriodName } from '../../series/periodNamed';
import { visitAll, visitNeeded } from '../../spec/visit';
import { warn, type Warning } from '../../trust/warnings';
import { contributionsFact } from './fact';
import { contributionsOf, type Contributions } from './figures';
import { contributionColumns, contributionRows } from './rows';
import { contributionsSentence } from './sentence';
import { sidesOf } from './sides';
import type { ContributionsSpec } from './spec';

export const contributionsKind: TallyKind<ContributionsSpec> = {
  inParts: (spec) => spec.between.of !== 'readings',
  check(spec, faults, path) {
    faults.measure(`${path}.measure`, spec.measure, []);
    const { kind } = spec.measure;
    if (!MEASURES[kind].adds && kind !== 'mean')
      faults.add(
        `${path}.measure.kind`,
        `What each group contributes to a ${MEASURES[kind].words} cannot be said.`,
        'Ask for a sum, a count or a mean.',
      );
    spec.by.forEach((key, k) => checkKey(key, faults, `${path}.by[${k}]`));
    const { between } = spec;
    const at = `${path}.between`;
    if (between.of === 'periods') {
      faults.column(`${at}.column`, between.column, ['date', 'datetime']);
      checkPeriodName(between.from, between.period, between.calendar, faults, `${at}.from`);
      checkPeriodName(between.to, between.period, between.calendar, faults, `${at}.to`);
    } else if (between.of === 'groups') checkKey(between.key, faults, `${at}.key`);
  },
  visit(spec, visitor, path) {
    const { between } = spec;
    const at = `${path}.between`;
    if (between.of === 'readings') {
      visitor.list?.(between.with, `${at}.with`);
      if (between.to !== undefined) visitor.list?.(between.to, `${at}.to`);
    }
    return {
      ...spec,
      measure: visitNeeded(spec.measure, visitor.measure, `${path}.measure`),
      by: visitAll(spec.by, visitor.key, `${path}.by`),
      between:
        between.of === 'periods'
          ? { ...between, column: visitNeeded(between.column, visitor.column, `${at}.column`) }
          : between.of === 'groups'
            ? { ...between, key: visitNeeded(between.key, visitor.key, `${at}.key`) }
            : between,
    };
  },
  compute: computeContributions,
  sentence: contributionsSentence,
  fact: contributionsFact,
};

function* computeContributions(input: TallyInput, spec: ContributionsSpec): Task<TallyAnswer> {
  const sides = yield* sidesOf(input, spec);
  const found = yield* contributionsOf(spec, sides);
  const selection = selectionOf(input, spec.scope);
  const labels = yield* keyColumns(input, spec.by, selection);
  const value = measureColumn(spec.measure, input.table, 'value');
  const columns = [...labels, ...contributionColumns(spec, sides, value, found)];
  const rows = contributionRows(input, spec, sides, found, columns, labels.length);
  return {
    tables: [
      tableOf({
        name: 'main',
        caption: 'Contributions of the groups',
        labels: labels.length,
        columns,
        rows,
      }),
    ],
    warnings: [
      ...sides.warnings,
      ...found.warnings,
      ...notes(found),
      ...(rows[0].marks ?? []).map(({ words }) => warn('rests', `The change: ${words}`)),
    ],
  };
}

/** Who gave most, and which groups stand on one side only. */
function notes({ before, after, groups }: Contributions): Warning[] {
  const change = after.figure - before.figure;
  const [most] = [...groups].sort((a, b) => Math.abs(b.gave) - Math.abs(a.gave));
  const single = groups.filter((g) => g.before.values === 0 || g.after.values === 0).length;
  return [
    ...(most && change !== 0 && most.gave / change > 0
      ? [
          warn(
            'gave-most',
            `${most.path.join(' › ')} contributed ${showShare(most.gave / change)} of the change.`,
          ),
        ]
      : []),
    ...(single > 0
      ? [
          warn(
            'on-one-side',
            `${counted(single, 'group')} ${single === 1 ? 'has' : 'have'} values on one side only.`,
          ),
        ]
      : []),
  ];
}
