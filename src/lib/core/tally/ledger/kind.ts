import { recordNumber } from '../../table/recordNumber';
import type { Steps } from '../../steps/steps';
import { isText, type Column } from '../../table/column';
import { recordTable, type AnswerTable } from '../answer';
import type { Base } from '../base';
import { RELATIVE, type Faults } from '../fault';
import {
  cellFigure,
  figureFrom,
  labelColumns,
  measureColumns,
  RECORDS_COLUMN,
  shownColumn,
} from '../figure';
import { orderFigures } from '../groupFigures';
import { GroupWalk } from '../groupWalk';
import { checkKey, checkOrder } from '../keys';
import type { TallyAnswer, TallyKind } from '../kind';
import { restsMark } from '../resting';
import { marked, type FigureColumn, type Mark } from '../result';
import { visitAll, visitMeasures, withOrderMoved } from '../visit';
import { computeLedger, type ComputedLedger } from './compute';
import { ledgerFact } from './fact';
import { ledgerSentence } from './sentence';
import type { LedgerSpec } from './spec';
import { putInOrder } from '../../table/recordOrder';

export const ledgerKind: TallyKind<LedgerSpec> = {
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
  *compute(base, spec): Steps<TallyAnswer> {
    return yield* ledgerTables(base, yield* computeLedger(base, spec));
  },
  sentence: ledgerSentence,
  fact: ledgerFact,
};

/** A computed ledger as tables: its groups, each under its total, and its records where asked for. */
export function* ledgerTables(base: Base, ledger: ComputedLedger): Steps<TallyAnswer> {
  const groups = yield* groupTable(base, ledger);
  const { spec, order, selection, warnings } = ledger;
  return {
    tables: spec.records
      ? [groups, yield* recordsInOrder(base.table.columns, order, selection)]
      : [groups],
    warnings,
    order,
  };
}

/** The groups depth first, each under its total. */
function* groupTable({ table }: Base, ledger: ComputedLedger): Steps<AnswerTable> {
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
  const count = (row: number): number => {
    const { level, group } = walk.at(row);
    return level < 0 ? records.length : figures.records[level][group];
  };
  const columns = [...labels, RECORDS_COLUMN, ...(yield* measureColumns(measures, table, records))];
  const marksOf = (row: number): Mark[] => {
    const { level, group } = walk.at(row);
    return measures.flatMap((_, k) =>
      restsMark(
        table,
        columns[labels.length + 1 + k],
        labels.length + 1 + k,
        own.resting.at(level + 1, k, group),
      ),
    );
  };
  return {
    name: 'main',
    caption: 'Groups',
    labels: labels.length,
    columns,
    length: walk.length,
    groups: walk.groups,
    deepest: walk.deepest,
    row: (n) => ({
      ...walk.row(n, [count(n), ...measures.map((m, k) => figureFrom(m, shown[k], value(n, k)))]),
      ...marked(marksOf(n)),
    }),
    number: (n, c) =>
      c < labels.length ? NaN : c === labels.length ? count(n) : value(n, c - labels.length - 1),
    partOf: (n) => walk.partOf(n),
    outline: (n) => walk.outline(n),
    find: (keys) => walk.find(keys),
    recordsOf: (rows) => walk.recordsOf(rows),
    reached: (n) => walk.reached(n),
  };
}

/** The records themselves, every cell in full; an unread cell has the text that stood there. */
function* recordsInOrder(
  columns: readonly Column[],
  order: Int32Array,
  selection: ComputedLedger['selection'],
): Steps<AnswerTable> {
  const ordered = yield* putInOrder(order, selection);
  return recordTable(
    {
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
          cells: [recordNumber(i), ...columns.map((c) => cellFigure(c, i))],
          where: { kind: 'records', not: false, records: [recordNumber(i)] },
        };
      },
    },
  );
}
