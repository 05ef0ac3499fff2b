import { recordNumber } from '../../../table/recordNumber';
import { inStretches, type Task } from '../../../task/task';
import type { Table } from '../../../table/table';
import { recordTable, type AnswerTable } from '../../answer/answer';
import type { TallyInput } from '../../input/input';
import { RELATIVE, type Faults } from '../../spec/fault';
import {
  cellFigure,
  figureFrom,
  labelColumns,
  measureColumn,
  measureColumns,
  RECORDS_COLUMN,
  shownColumn,
} from '../../answer/figure';
import { orderFigures } from '../../groups/groupFigures';
import { GroupWalk } from '../../groups/groupWalk';
import { checkKey, checkOrder } from '../../groups/keys';
import type { TallyAnswer, TallyKind } from '../../kind/kind';
import { deviationsOf, influenceMarks, type Influence } from '../../trust/influence';
import { figureOf, marked, type FigureColumn } from '../../answer/result';
import { valueColumn } from '../../answer/valueColumn';
import { visitAll, visitMeasures, withOrderMoved } from '../../spec/visit';
import { computeLedger, type ComputedLedger } from './compute';
import { ledgerFact } from './fact';
import { layoutRows } from './rows';
import { runningRecords } from './runningRecords';
import { ledgerSentence } from './sentence';
import type { LedgerSpec } from './spec';
import { putInOrder } from '../../../table/recordOrder';
import { recordCount } from '../../../table/recordCounts';

export const ledgerKind: TallyKind<LedgerSpec> = {
  inParts: (spec) => !spec.records,
  columnsForeseen: true,
  check(spec, faults: Faults, path) {
    spec.groups.forEach((key, k) => {
      checkKey(key, faults, `${path}.groups[${k}]`);
      checkOrder(key.order, spec.measures.length, faults, `${path}.groups[${k}].order`);
    });
    spec.sort.forEach((key, k) => faults.column(`${path}.sort[${k}].column`, key.column));
    spec.measures.forEach((m, k) => faults.measure(`${path}.measures[${k}]`, m, RELATIVE));
  },
  visit(spec, visitor, path) {
    const { kept, places } = visitMeasures(spec.measures, visitor, `${path}.measures`);
    return {
      ...spec,
      groups: visitAll(spec.groups, visitor.key, `${path}.groups`).map((key) =>
        withOrderMoved(key, places),
      ),
      sort: visitAll(spec.sort, visitor.sort, `${path}.sort`),
      measures: kept,
    };
  },
  *compute(input, spec): Task<TallyAnswer> {
    return yield* ledgerTables(input, yield* computeLedger(input, spec));
  },
  sentence: ledgerSentence,
  fact: ledgerFact,
};

/** A computed ledger as tables: its groups, each under its total, and its records where asked for. */
export function* ledgerTables(input: TallyInput, ledger: ComputedLedger): Task<TallyAnswer> {
  const groups = yield* groupTable(input, ledger);
  const { spec, order, warnings } = ledger;
  return {
    tables: spec.records ? [groups, yield* recordsInOrder(input, ledger)] : [groups],
    warnings,
    order,
  };
}

/** The groups depth first, each under its total. */
function* groupTable({ table }: TallyInput, ledger: ComputedLedger): Task<AnswerTable> {
  const { spec, tree, figures, own, records } = ledger;
  const { measures } = spec;
  const walk = yield* GroupWalk.of(
    tree,
    spec.groups.map((g) => g.order),
    orderFigures(own),
  );
  const shown = measures.map((m) => shownColumn(m, table));
  const labels = labelColumns(spec.groups, tree.keys, table);
  const value = (row: number, k: number): number => {
    const { level, group } = walk.at(row);
    return level < 0 ? figures.total[k] : figures.levels[level][k][group];
  };
  const all = recordCount(table, records);
  const count = (row: number): number => {
    const { level, group } = walk.at(row);
    return level < 0 ? all : figures.records[level][group];
  };
  const columns = [...labels, RECORDS_COLUMN, ...(yield* measureColumns(measures, table, records))];
  /** What each figure of a row rests on, by the place of its column. */
  const restsOf = (row: number): [number, Influence | null][] => {
    const { level, group } = walk.at(row);
    return measures.map((_, k) => [labels.length + 1 + k, own.influences.at(level + 1, k, group)]);
  };
  return {
    name: 'main',
    caption: 'Groups',
    labels: labels.length,
    columns,
    length: walk.length,
    groups: walk.groups,
    deepest: walk.deepest,
    row(n) {
      const rests = restsOf(n);
      return {
        ...walk.row(n, [count(n), ...measures.map((m, k) => figureFrom(m, shown[k], value(n, k)))]),
        ...marked(rests.flatMap(([c, of]) => influenceMarks(table, columns[c], c, of))),
        ...deviationsOf(columns, rests),
      };
    },
    number: (n, c) =>
      c < labels.length ? NaN : c === labels.length ? count(n) : value(n, c - labels.length - 1),
    partOf: (n) => walk.partOf(n),
    outline: (n) => walk.outline(n),
    find: (keys) => walk.find(keys),
    recordsOf: (rows) => walk.recordsOf(rows),
    carried: (n) => walk.reached(n),
  };
}

/**
 * The records themselves, every cell in full; an unread one has the text that stood there. Behind them
 * the running totals that the ledger asks for: within the group of each, in the order of the ledger.
 */
function* recordsInOrder({ table }: TallyInput, ledger: ComputedLedger): Task<AnswerTable> {
  const { columns } = table;
  const ordered = yield* putInOrder(ledger.order, ledger.selection);
  const running = yield* runningColumns(table, ledger);
  return recordTable(
    {
      name: 'records',
      caption: 'Records',
      labels: 1,
      columns: [
        { key: 'record', title: 'Record', unit: '', type: 'number', decimals: 0 },
        ...columns.map(valueColumn),
        ...running.map(({ column }) => column),
      ],
    },
    {
      length: ordered.length,
      recordAt: (n) => ordered[n],
      rowOf: (record) => ordered.indexOf(record),
      row(n) {
        const i = ordered[n];
        return {
          kind: 'group',
          level: 0,
          cells: [
            recordNumber(i),
            ...columns.map((c) => cellFigure(c, i)),
            ...running.map(({ totals }) => figureOf(totals[i])),
          ],
          where: { kind: 'records', not: false, records: [recordNumber(i)] },
        };
      },
    },
  );
}

/** The running totals of a ledger over its records. @returns each with a number for every record of the list */
function* runningColumns(
  table: Table,
  ledger: ComputedLedger,
): Task<{ column: FigureColumn; totals: Float64Array }[]> {
  const { spec, tree, order, selection, records } = ledger;
  const out: { column: FigureColumn; totals: Float64Array }[] = [];
  for (const [k, measure] of spec.measures.entries()) {
    if (measure.kind !== 'running' || measure.column === undefined) continue;
    const rows = yield* layoutRows(tree, order, selection, records);
    const byRow = yield* runningRecords(table, ledger, rows, selection, measure.column);
    const totals = new Float64Array(table.length).fill(NaN);
    yield* inStretches(byRow.length, (from, to) => {
      for (let row = from; row < to; row++) totals[rows.records[row]] = byRow[row];
    });
    const { title, unit, type, decimals } = measureColumn(measure, table, '');
    out.push({
      column: {
        key: `m${k + 1}`,
        title,
        unit,
        type,
        ...(decimals !== undefined && { decimals }),
        column: measure.column,
        words: 'The records of its group down to this one added up, in the order of the ledger.',
      },
      totals,
    });
  }
  return out;
}
