import { groupKeys } from '../../../arrange/tree';
import type { Condition } from '../../../selection/condition';
import type { GroupKey } from '../../../arrange/groupKey';
import { MEASURES } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import { namesOf } from '../../../table/table';
import { recordsOf, selectionOf, type TallyInput, orderedFor } from '../../input/input';
import { measureColumns, RECORDS_COLUMN, labelColumns } from '../../answer/figure';
import { checkKey, checkOrder, codesOfAll, groupWhere } from '../../groups/keys';
import { type Names, type TallyAnswer, type TallyKind } from '../../kind/kind';
import type { Figure, FigureColumn } from '../../answer/result';
import { orderGroups, walkGroups } from '../../groups/sortedGroups';
import { visitAll, visitMeasures, withOrderMoved } from '../../spec/visit';
import { measurePhrase } from '../../sentence/words';
import { computeCross, type CrossFigures } from './figures';
import { crosstabFact } from './fact';
import { crosstabSentence } from './sentence';
import type { CrosstabSpec } from './spec';
import { crossTable, sharesOf, type Across } from './table';

export const crosstabKind: TallyKind<CrosstabSpec> = {
  inParts: () => true,
  check(spec, faults, path) {
    for (const side of ['down', 'across'] as const)
      spec[side].forEach((key, k) => {
        checkKey(key, faults, `${path}.${side}[${k}]`);
        checkOrder(key.order, spec.measures.length, faults, `${path}.${side}[${k}].order`);
      });
    spec.measures.forEach((m, k) => faults.measure(`${path}.measures[${k}]`, m));
    if (spec.shares.length && !spec.measures.some((m) => MEASURES[m.kind].adds))
      faults.add(
        `${path}.shares`,
        'None of the measures adds up, so there are no shares of it.',
        'Ask for a sum or a count beside it.',
      );
  },
  visit(spec, visitor, path) {
    const { kept, places } = visitMeasures(spec.measures, visitor, `${path}.measures`);
    const keys = (side: 'down' | 'across'): GroupKey[] =>
      visitAll(spec[side], visitor.key, `${path}.${side}`).map((key) =>
        withOrderMoved(key, places),
      );
    return { ...spec, down: keys('down'), across: keys('across'), measures: kept };
  },
  compute: computeCrosstab,
  sentence: crosstabSentence,
  fact: crosstabFact,
};

function* computeCrosstab(input: TallyInput, spec: CrosstabSpec): Task<TallyAnswer> {
  const { table } = input;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const ordered = yield* orderedFor(input, selection, spec.measures);
  const down = yield* codesOfAll(input, spec.down, selection);
  const across = yield* codesOfAll(input, spec.across, selection);
  const cross = yield* computeCross(
    table,
    records,
    ordered,
    { down: down.map((c) => c.codes), across: across.map((c) => c.codes) },
    spec.measures,
  );
  const names = namesOf(table);
  const labels = labelColumns(spec.down, cross.down.keys, table);
  const own = yield* ownColumns(spec, input, records, names);
  const sides = yield* acrossColumns(spec, cross, labels, own);
  return {
    tables: [yield* crossTable(spec, input, cross, sides, labels.length)],
    warnings: [...down, ...across].flatMap((c) => c.warnings),
  };
}

/** The columns under each group across: the count where asked for, then measures with their shares. */
function* ownColumns(
  spec: CrosstabSpec,
  input: TallyInput,
  records: Int32Array,
  names: Names,
): Task<FigureColumn[]> {
  const measures = (yield* measureColumns(spec.measures, input.table, records)).flatMap(
    (column, k) => [
      column,
      ...sharesOf(spec, k).map((share): FigureColumn => ({
        key: `${column.key}-${share}`,
        title: `share of the ${share}, ${measurePhrase(spec.measures[k], names)}`,
        unit: '',
        type: 'share',
        words: `${column.title} ÷ that of the whole ${share === 'total' ? 'table' : share}.`,
      })),
    ],
  );
  return spec.count ? [RECORDS_COLUMN, ...measures] : measures;
}

/** All columns: those of each group across depth first, and last those of the whole. */
function* acrossColumns(
  spec: CrosstabSpec,
  cross: CrossFigures,
  labels: readonly FigureColumn[],
  own: readonly FigureColumn[],
): Task<{ columns: FigureColumn[]; groups: Across[] }> {
  const { across } = cross;
  const depth = across.levels.length;
  const order: {
    level: number;
    group: number;
    parent: number;
    title: string;
    where?: Condition;
    keys?: Figure[];
  }[] = [];
  const open: number[] = [];
  const path: string[] = [];
  const shown = yield* orderGroups(
    across,
    spec.across.map((key) => key.order),
    across.levels.map((_, l) => ({
      records: cross.records[0][l + 1],
      measures: cross.figures[0][l + 1],
    })),
  );
  yield* walkGroups(shown, (level, group) => {
    path[level] = across.keys[level].label(across.levels[level].code[group]);
    open[level] = order.length;
    order.push({
      level: level + 1,
      group,
      parent: level === 0 ? -1 : open[level - 1],
      title: path.slice(0, level + 1).join(' › ') + (level < depth - 1 ? ' total' : ''),
      where: groupWhere(across, level, group),
      keys: groupKeys(across, level, group),
    });
  });
  order.push({ level: 0, group: 0, parent: -1, title: 'All' });
  const whole = order.length - 1;
  const at = (k: number): number => labels.length + k * own.length;
  const columns: FigureColumn[] = [...labels];
  order.forEach(({ parent, title, where, keys }, k) => {
    own.forEach((column, c) => {
      columns.push({
        ...column,
        key: `${k === whole ? 'all' : `a${k + 1}`}.${column.key}`,
        title: `${title} › ${column.title}`,
        ...(where && { where, keys }),
        ...(k !== whole && column.adds && { partOf: at(parent < 0 ? whole : parent) + c }),
      });
    });
  });
  return { columns, groups: order.map(({ level, group }, k) => ({ level, group, first: at(k) })) };
}
