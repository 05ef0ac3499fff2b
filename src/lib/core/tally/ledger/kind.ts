import { z } from 'zod';
import { sortRecords } from '../../arrange/sort';
import { buildTree } from '../../arrange/tree';
import type { Steps } from '../../steps/steps';
import { has } from '../../table/bitset';
import { fullCell, fullScalar } from '../../table/cell';
import { isMissing, isText, isUnread, type Column } from '../../table/column';
import { recordsOf, selectionOf, type Base } from '../base';
import { RELATIVE, type Faults } from '../fault';
import { figureFrom, measureColumns, shownColumn, RECORDS_COLUMN, labelColumns } from '../figure';
import { checkKey, checkOrder, codesOf, groupWhere, MOST_GROUPS, refuseTooMany } from '../keys';
import { tallyCommon, type Names, type TallyFigures, type TallyKind } from '../kind';
import type { Figure, FigureColumn, FigureRow, FigureTable, Warning } from '../result';
import { walkGroups } from '../sortedGroups';
import { reckonGroups } from '../groupFigures';
import { describeLedger } from './sentence';
import { LedgerSpec } from './spec';

/**
 * The ledger as a tally of an ask: its groups, each under its total, and its records where asked for.
 * Where totals stand is a matter of the page.
 */
export const LedgerAsk = LedgerSpec.omit({ totals: true })
  .extend({
    ...tallyCommon,
    kind: z.literal('ledger'),
    /** Whether the records stand in a table of their own, in the order of the ledger. */
    records: z.boolean().default(false),
  })
  .strict();
export type LedgerAsk = z.infer<typeof LedgerAsk>;

export const ledgerKind: TallyKind<LedgerAsk> = {
  kind: 'ledger',
  spec: LedgerAsk,
  check(spec, faults: Faults, path) {
    spec.groups.forEach((key, k) => {
      checkKey(key, faults, `${path}.groups[${k}]`);
      checkOrder(key.order, spec.measures.length, faults, `${path}.groups[${k}].order`);
    });
    spec.sort.forEach((key, k) => faults.column(`${path}.sort[${k}].column`, key.column));
    spec.measures.forEach((m, k) => faults.measure(`${path}.measures[${k}]`, m, RELATIVE));
  },
  reckon: reckonLedger,
  describe: (spec, names: Names, listName) => describeLedger(spec, names, listName),
};

function* reckonLedger(base: Base, spec: LedgerAsk): Steps<TallyFigures> {
  const { table } = base;
  const selection = selectionOf(base, spec.scope);
  const records = recordsOf(selection);
  // Its own order of records; those it holds equal keep the order of the list.
  const order = spec.sort.length ? yield* sortRecords(table, spec.sort, base.order) : base.order;
  const ordered = order.filter((i) => has(selection, i));
  const coded = spec.groups.map((key) => codesOf(table, key, records));
  const warnings: Warning[] = coded.flatMap((c) => c.warnings);
  yield undefined;
  const tree = buildTree(
    table.length,
    coded.map((c) => c.codes),
  );
  refuseTooMany(tree.leaves, 'groups', MOST_GROUPS);
  yield undefined;
  const figures = yield* reckonGroups({ table, tree, records, ordered }, spec.measures);
  const shown = spec.measures.map((m) => shownColumn(m, table));
  const labels = labelColumns(spec.groups, table);
  const depth = labels.length;
  const rows: FigureRow[] = [];
  const open: number[] = [];
  const cellsOf = (at: (k: number) => number): Figure[] =>
    spec.measures.map((m, k) => figureFrom(m, shown[k], at(k)));
  rows.push({
    kind: 'total',
    level: 0,
    cells: [
      ...labels.map((_, l) => (l === 0 ? 'Grand total' : null)),
      records.length,
      ...cellsOf((k) => figures.total[k]),
    ],
  });
  const path: string[] = [];
  walkGroups(
    tree,
    spec.groups.map((g) => g.order),
    tree.levels.map((_, l) => ({ records: figures.records[l], measures: figures.levels[l] })),
    (level, group) => {
      path[level] = tree.keys[level].label(tree.levels[level].code[group]);
      open[level] = rows.length;
      rows.push({
        kind: level === depth - 1 ? 'group' : 'total',
        level: level + 1,
        cells: [
          ...labels.map((_, l) => (l <= level ? path[l] : null)),
          figures.records[level][group],
          ...cellsOf((k) => figures.levels[level][k][group]),
        ],
        where: { condition: groupWhere(tree, level, group) },
        partOf: level === 0 ? 0 : open[level - 1],
      });
    },
  );
  const groups: FigureTable = {
    name: 'main',
    caption: 'Groups',
    labels: depth,
    columns: [...labels, RECORDS_COLUMN, ...measureColumns(spec.measures, table, records)],
    rows,
  };
  return {
    tables: spec.records ? [groups, recordTable(table.columns, ordered)] : [groups],
    warnings,
  };
}

/** The records themselves, every cell in full; an unread cell has the text that stood there. */
function recordTable(columns: readonly Column[], ordered: Int32Array): FigureTable {
  return {
    name: 'records',
    caption: 'Records',
    labels: 1,
    columns: [
      { key: 'record', title: 'Record', unit: '', type: 'number', decimals: 0 },
      ...columns.map((c): FigureColumn => ({
        key: c.id,
        title: c.name,
        unit: isText(c) ? '' : c.unit,
        type: c.type,
        ...(c.type === 'number' && { decimals: c.decimals }),
      })),
    ],
    rows: Array.from(ordered, (i): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [i + 1, ...columns.map((c) => cellFigure(c, i))],
      where: { records: [i] },
    })),
  };
}

function cellFigure(column: Column, record: number): Figure {
  if (isUnread(column, record)) return fullCell(column, record);
  if (isMissing(column, record)) return null;
  if (isText(column)) return fullCell(column, record);
  return column.type === 'number'
    ? column.values[record]
    : fullScalar(column, column.values[record]);
}
