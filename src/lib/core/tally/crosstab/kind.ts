import { groupKeys } from '../../arrange/tree';
import type { Condition } from '../../scope/condition';
import type { GroupKey } from '../../arrange/groupKey';
import { MEASURES } from '../../measure/measure';
import type { Steps } from '../../steps/steps';
import { counted } from '../../table/format';
import { namesOf } from '../../table/table';
import { tableOf } from '../answer';
import { recordsOf, selectionOf, type Base, orderedFor } from '../base';
import { figureFrom, measureColumns, shownColumn, RECORDS_COLUMN, labelColumns } from '../figure';
import { checkKey, checkOrder, codesOfAll, groupWhere } from '../keys';
import { GroupWalk } from '../groupWalk';
import { type Names, type TallyAnswer, type TallyKind } from '../kind';
import {
  marked,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type Mark,
  shareOf,
} from '../result';
import { restsMark, shareRestsMark } from '../resting';
import { walkGroups } from '../sortedGroups';
import { visitAll, visitMeasures, withOrderMoved } from '../visit';
import { measurePhrase } from '../words';
import { computeCross, type CrossFigures } from './figures';
import { crosstabFact } from './fact';
import { crosstabSentence } from './sentence';
import type { CrosstabSpec } from './spec';

export const crosstabKind: TallyKind<CrosstabSpec> = {
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

/** What stands under one group across: its place among the levels, and its first column. */
interface Across {
  readonly level: number;
  readonly group: number;
  readonly first: number;
}

function* computeCrosstab(base: Base, spec: CrosstabSpec): Steps<TallyAnswer> {
  const { table } = base;
  const selection = selectionOf(base, spec.scope);
  const records = recordsOf(selection);
  const ordered = orderedFor(base, selection, spec.measures);
  const down = yield* codesOfAll(base, spec.down, selection);
  const across = yield* codesOfAll(base, spec.across, selection);
  const cross = yield* computeCross(
    table,
    records,
    ordered,
    { down: down.map((c) => c.codes), across: across.map((c) => c.codes) },
    spec.measures,
  );
  const names = namesOf(table);
  const labels = labelColumns(spec.down, cross.down.keys, table);
  const own = yield* ownColumns(spec, base, records, names);
  const { columns, groups } = acrossColumns(spec, cross, labels, own);
  const rows = crossRows(spec, base, cross, columns, labels.length, groups);
  return {
    tables: [tableOf({ name: 'main', caption: 'Cross-tab', labels: labels.length, columns, rows })],
    warnings: [...down, ...across].flatMap((c) => c.warnings),
  };
}

/** The columns under each group across: the count where asked for, then measures with their shares. */
function* ownColumns(
  spec: CrosstabSpec,
  base: Base,
  records: Int32Array,
  names: Names,
): Steps<FigureColumn[]> {
  const measures = (yield* measureColumns(spec.measures, base.table, records)).flatMap(
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

const sharesOf = (spec: CrosstabSpec, measure: number): CrosstabSpec['shares'] =>
  MEASURES[spec.measures[measure].kind].adds ? spec.shares : [];

/** All columns: those of each group across depth first, and last those of the whole. */
function acrossColumns(
  spec: CrosstabSpec,
  cross: CrossFigures,
  labels: readonly FigureColumn[],
  own: readonly FigureColumn[],
): { columns: FigureColumn[]; groups: Across[] } {
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
  walkGroups(
    across,
    spec.across.map((key) => key.order),
    across.levels.map((_, l) => ({
      records: cross.records[0][l + 1],
      measures: cross.figures[0][l + 1],
    })),
    (level, group) => {
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
    },
  );
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

function crossRows(
  spec: CrosstabSpec,
  base: Base,
  cross: CrossFigures,
  columns: readonly FigureColumn[],
  labels: number,
  groups: readonly Across[],
): FigureRow[] {
  const { down } = cross;
  const shown = spec.measures.map((m) => shownColumn(m, base.table));
  const value = (i: number, g: number, { level, group }: Across, k: number): number =>
    cross.figures[i][level][k][g * cross.widths[level] + group];
  const whole: Across = groups[groups.length - 1];
  const cellsOf = (i: number, g: number): { cells: Figure[]; marks: Mark[] } => {
    const cells: Figure[] = [];
    const marks: Mark[] = [];
    for (const across of groups) {
      const n = cross.records[i][across.level][g * cross.widths[across.level] + across.group];
      if (spec.count) cells.push(n);
      spec.measures.forEach((m, k) => {
        const v = value(i, g, across, k);
        if (n > 0 && n < spec.few && MEASURES[m.kind].figure !== 'count')
          marks.push({ column: labels + cells.length, kind: 'few', words: counted(n, 'record') });
        const rests = cross.resting.at(
          i * cross.widths.length + across.level,
          k,
          g * cross.widths[across.level] + across.group,
        );
        marks.push(
          ...restsMark(base.table, columns[labels + cells.length], labels + cells.length, rests),
        );
        cells.push(figureFrom(m, shown[k], v));
        const of = columns[labels + cells.length - 1];
        for (const share of sharesOf(spec, k)) {
          const divisor =
            share === 'row'
              ? value(i, g, whole, k)
              : share === 'column'
                ? value(0, 0, across, k)
                : value(0, 0, whole, k);
          const at = labels + cells.length;
          marks.push(...shareRestsMark(base.table, of, columns[at], at, rests, divisor));
          cells.push(shareOf(v, divisor));
        }
      });
    }
    return { cells, marks };
  };
  const walk = new GroupWalk(
    down,
    spec.down.map((key) => key.order),
    down.levels.map((_, l) => ({
      records: cross.records[l + 1][0],
      measures: cross.figures[l + 1][0],
    })),
  );
  return Array.from({ length: walk.length }, (_, n) => {
    const { level, group } = walk.at(n);
    const { cells, marks } = cellsOf(level + 1, group);
    return { ...walk.row(n, cells), ...marked(marks) };
  });
}
