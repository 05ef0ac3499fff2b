import { groupPath } from '../../core/arrange/tree';
import type { Slot } from '../../core/bench/slots';
import type { Measure } from '../../core/measure/measure';
import { has as holdsRecord } from '../../core/table/bitset';
import { showCell, showScalar, usualFormat } from '../../core/table/cell';
import { isMissing, isUnread, isText, type Column } from '../../core/table/column';
import { columnOf } from '../../core/table/table';
import { deviationDigits, figureText, meanWithDeviation } from '../../core/tally/ledger/figureText';
import type { LedgerLine } from '../../core/tally/ledger/lines';
import type { Line, LineCell } from '../protocol';
import type { Reckoned } from '../reckoning';

/** Texts longer than this are cut on the page; copies and files carry them whole. */
const LONGEST_SHOWN = 500;

/** Corrected cells of a bench, as `record/column`. */
export const correctedCells = (r: Reckoned): ReadonlySet<string> =>
  new Set(r.doc.corrections.map((c) => `${c.record}/${c.column}`));

/** Lines from..from+count-1 as the page shows them. */
export function answerLines(r: Reckoned, from: number, count: number): Line[] {
  const corrected = correctedCells(r);
  const out: Line[] = [];
  for (let n = from; n < Math.min(from + count, r.lines.length); n++)
    out.push(lineOf(r, r.lines.at(n), corrected));
  return out;
}

function lineOf(r: Reckoned, line: LedgerLine, corrected: ReadonlySet<string>): Line {
  if (line.kind === 'record') return recordLine(r, line.record, line.row, line.level, corrected);
  const { level, group } = line;
  const path = groupPath(r.tree, level, group);
  const count = r.figures.records[level][group];
  const aside = r.rows.end[level][group] - r.rows.first[level][group] - count;
  const totals = line.kind === 'total' || line.carriesTotals;
  return {
    kind: line.kind,
    level,
    label: path[level],
    path,
    count,
    aside,
    open: line.kind === 'total' || line.open,
    totals,
    record: -1,
    ...asCells(totals ? r.columns.slots.map((slot) => groupCell(r, slot, level, group)) : []),
  };
}

/** Plain texts and one word of states: the page checks a line in a few looks, not one for each cell. */
const asCells = (cells: readonly LineCell[]): Pick<Line, 'cells' | 'states'> => ({
  cells: cells.map((cell) => cell.t),
  states: cells.map((cell) => cell.k || '.').join(''),
});

/** A group's figure in a slot. */
export function groupCell(r: Reckoned, slot: Slot, level: number, group: number): LineCell {
  if (slot.measure < 0) return { t: '', k: '' };
  const at = (k: number): number => r.figures.levels[level][k][group];
  const value = at(slot.measure);
  return { t: shownFigure(r, slot.measure, at), k: value === value ? '' : 'n' };
}

/**
 * A measure's figure as shown, a mean with its deviation where that was asked for.
 * @param at figures by place of the measure
 */
export function shownFigure(r: Reckoned, k: number, at: (measure: number) => number): string {
  const measure = r.spec.measures[k];
  const column = measureColumn(r, measure);
  const digits = deviationDigits(measure, r.doc.formats);
  const sd = r.deviations[k];
  if (!digits || sd < 0 || column?.type !== 'number')
    return figureText(measure, column, at(k), r.doc.formats);
  return meanWithDeviation(at(k), at(sd), digits, r.doc.formats[column.id] ?? usualFormat(column));
}

export const measureColumn = (r: Reckoned, measure: Measure): Column | null =>
  measure.column === undefined ? null : columnOf(r.table, measure.column);

/** A cell of a record. */
export function cellOf(
  r: Reckoned,
  column: Column,
  record: number,
  corrected: ReadonlySet<string>,
): LineCell {
  if (corrected.has(`${record}/${column.id}`))
    return { t: shorten(showCell(column, record, r.doc.formats[column.id])), k: 'c' };
  if (isUnread(column, record)) return { t: shorten(showCell(column, record)), k: 'u' };
  if (isMissing(column, record)) return { t: 'blank', k: 'b' };
  return { t: shorten(showCell(column, record, r.doc.formats[column.id])), k: '' };
}

const shorten = (text: string): string =>
  text.length > LONGEST_SHOWN ? `${text.slice(0, LONGEST_SHOWN)}…` : text;

function recordLine(
  r: Reckoned,
  record: number,
  row: number,
  level: number,
  corrected: ReadonlySet<string>,
): Line {
  const naming = r.columns.naming;
  const name = naming
    ? cellOf(r, columnOf(r.table, naming), record, corrected).t
    : `Record ${record + 1}`;
  return {
    kind: 'record',
    level,
    label: name,
    path: [],
    count: 1,
    aside: holdsRecord(r.ladder.setAside, record) ? 1 : 0,
    open: false,
    totals: false,
    record,
    ...asCells(r.columns.slots.map((slot) => recordCell(r, slot, record, row, corrected))),
  };
}

function recordCell(
  r: Reckoned,
  slot: Slot,
  record: number,
  row: number,
  corrected: ReadonlySet<string>,
): LineCell {
  const measure = slot.measure >= 0 ? r.spec.measures[slot.measure] : null;
  if (measure?.kind === 'running' && measure.column)
    return runningCell(r, columnOf(r.table, measure.column), record, row);
  if (!slot.cells || slot.column === null) return { t: '', k: '' };
  return cellOf(r, columnOf(r.table, slot.column), record, corrected);
}

/** The sum of the counted values from the first row of the record's group to this one. */
function runningCell(r: Reckoned, column: Column, record: number, row: number): LineCell {
  if (isText(column)) return { t: '', k: '' };
  if (holdsRecord(r.ladder.setAside, record)) return { t: '', k: '' };
  const depth = r.tree.levels.length;
  const first = depth ? r.rows.first[depth - 1][r.tree.leafOf[record]] : 0;
  let [sum, lost] = [0, 0];
  for (let k = first; k <= row; k++) {
    const i = r.rows.records[k];
    const x = column.values[i];
    if (x !== x || holdsRecord(r.ladder.setAside, i)) continue;
    const t = sum + x;
    const b = t - sum;
    lost += sum - (t - b) + (x - b);
    sum = t;
  }
  return { t: showScalar(column, sum + lost, r.doc.formats[column.id]), k: '' };
}
