import { groupKeys, groupPath } from '../../../arrange/tree';
import { columnFor } from '../../../expression/columnFor';
import { inStretches, type Task } from '../../../task/task';
import { has, type Bitset } from '../../../table/bitset';
import { recordNumber } from '../../../table/recordNumber';
import type { Table } from '../../../table/table';
import { tableOfRows, type AnswerTable } from '../../answer/answer';
import {
  cellFigure,
  figureFrom,
  labelColumns,
  measureColumn,
  RECORDS_COLUMN,
  shownColumn,
} from '../../answer/figure';
import { groupWhere } from '../../groups/keys';
import { deviationsOf, influenceMarks, type Influence } from '../../trust/influence';
import {
  figureOf,
  marked,
  type Figure,
  type FigureColumn,
  type FigureRow,
} from '../../answer/result';
import { valueColumn } from '../../answer/valueColumn';
import type { ComputedLedger } from './compute';
import type { LedgerLine, NumberedLines } from './lines';

/** One column of a ledger as it is looked at: a column of the list, a measure of it, or both. */
export interface LedgerSlot {
  readonly column: string | null;
  /** Place of the measure among the spec's, or -1. */
  readonly measure: number;
  /** Whether lines of records show the column's cell here, or its running total. */
  readonly cells: boolean;
}

/** What is looked at of a ledger. */
export interface LedgerView {
  /** The column whose value names a record; null: the record's number. */
  readonly naming: string | null;
  readonly slots: readonly LedgerSlot[];
  readonly lines: NumberedLines;
  /** Records that count; others are in view, and have no running total. */
  readonly counted: Bitset;
  /** Running totals by the place of their measure, a number for each row. */
  readonly running: ReadonlyMap<number, Float64Array>;
}

/** Where the cells of a slot's column come from in lines of records. */
interface RecordCells {
  readonly column: FigureColumn;
  figure(record: number, row: number): Figure;
}

/**
 * A ledger as it is looked at: a row for each line, groups and records among one another, with running
 * totals and deviations, and the whole last. Rows of records have columns of their own
 * (`recordColumns`): where a group has the sum of a column, its records have their values. Lines that are
 * in view without figures are rows too; `handedOver` leaves them out.
 */
export function linesTable(table: Table, ledger: ComputedLedger, view: LedgerView): AnswerTable {
  const { spec, tree, figures, own, records } = ledger;
  const { lines, slots, running } = view;
  const depth = tree.levels.length;
  const naming = lines.showsRecords && view.naming ? columnFor(table, view.naming) : null;
  const labels = labelColumns(spec.groups, tree.keys, table);
  const shown = spec.measures.map((m) => shownColumn(m, table));
  const measures = spec.measures.map((m, k) => measureColumn(m, table, `m${k + 1}`));
  const nothing = (head: FigureColumn): RecordCells => ({ column: head, figure: () => null });
  const cellsOf = ({ column, measure, cells }: LedgerSlot): RecordCells => {
    if (!cells) return nothing(measures[measure]);
    const totals = running.get(measure);
    if (totals) return { column: measures[measure], figure: (_, row) => figureOf(totals[row]) };
    if (column === null) return nothing(measures[measure]);
    const of = columnFor(table, column);
    return { column: valueColumn(of), figure: (record) => cellFigure(of, record) };
  };
  const recordCells = slots.map(cellsOf);
  const head = [...labels, ...(naming ? [valueColumn(naming)] : []), RECORDS_COLUMN];
  const columns = [
    ...head,
    ...slots.map(({ measure }, s) => (measure >= 0 ? measures[measure] : recordCells[s].column)),
  ];
  const recordColumns = [...head, ...recordCells.map(({ column }) => column)];
  const first = head.length;
  const restsOf = (level: number, group: number): [number, Influence | null][] =>
    slots.flatMap(({ measure }, s): [number, Influence | null][] =>
      measure < 0 ? [] : [[first + s, own.influences.at(level + 1, measure, group)]],
    );
  const groupRow = (level: number, group: number, kind: FigureRow['kind']): FigureRow => {
    const rests = restsOf(level, group);
    const value = (k: number): number =>
      level < 0 ? figures.total[k] : figures.levels[level][k][group];
    const path = level < 0 ? ['Grand total'] : groupPath(tree, level, group);
    return {
      kind,
      level: level + 1,
      keys: level < 0 ? [] : groupKeys(tree, level, group),
      cells: [
        ...Array.from({ length: first - 1 }, (_, c) => path[c] ?? null),
        level < 0 ? records.length : figures.records[level][group],
        ...slots.map(({ measure }) =>
          measure < 0 ? null : figureFrom(spec.measures[measure], shown[measure], value(measure)),
        ),
      ],
      ...(level >= 0 && { where: groupWhere(tree, level, group) }),
      ...marked(rests.flatMap(([c, of]) => influenceMarks(table, columns[c], c, of))),
      ...deviationsOf(columns, rests),
    };
  };
  const recordRow = (record: number, row: number): FigureRow => {
    const leaf = tree.leafOf[record];
    const name = naming && cellFigure(naming, record);
    return {
      kind: 'group',
      level: depth + 1,
      record: true,
      keys: [...(depth ? groupKeys(tree, depth - 1, leaf) : []), ...(naming ? [name] : [])],
      cells: [
        ...(depth ? groupPath(tree, depth - 1, leaf) : []),
        ...(naming ? [name] : []),
        1,
        ...recordCells.map(({ figure }) => figure(record, row)),
      ],
      where: { kind: 'records', not: false, records: [recordNumber(record)] },
    };
  };
  return tableOfRows(
    { name: 'main', caption: 'Groups', labels: first - 1, columns, recordColumns },
    {
      length: lines.length + 1,
      row(n) {
        if (n === lines.length) return groupRow(-1, 0, 'total');
        const line = lines.at(n);
        return line.kind === 'record'
          ? recordRow(line.record, line.row)
          : groupRow(line.level, line.group, line.kind === 'total' ? 'total' : 'group');
      },
    },
  );
}

/** Rows that are handed over: records that count, groups with their totals once each, and the whole. */
export function* handedOver({ lines, counted }: LedgerView): Task<Int32Array> {
  const goes = (line: LedgerLine): boolean =>
    line.kind === 'record'
      ? has(counted, line.record)
      : line.kind !== 'group' || line.carriesTotals;
  const rows = new Int32Array(lines.length + 1);
  let length = 0;
  yield* inStretches(lines.length, (from, to) => {
    for (let n = from; n < to; n++) if (goes(lines.at(n))) rows[length++] = n;
  });
  rows[length++] = lines.length;
  return rows.subarray(0, length);
}
