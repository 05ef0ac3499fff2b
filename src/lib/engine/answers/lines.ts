import { recordNumber } from '../../core/table/recordNumber';
import { groupKeys } from '../../core/arrange/tree';
import type { Steps } from '../../core/steps/steps';
import { has } from '../../core/table/bitset';
import { columnOf } from '../../core/table/table';
import { figureText } from '../../core/tally/figureText';
import type { LedgerLine } from '../../core/tally/ledger/lines';
import { statesOf } from '../cellStates';
import type { Held } from '../held';
import type { LedgerLayout } from '../ledger/layout';
import type { Slot } from '../ledger/slots';
import type { ArgsOf } from '../protocol';
import type { Line } from '../replies/ledger';
import type { LineCell } from '../replies/cell';
import { cellOf, correctedCells } from './cells';
import { fitting } from './weight';

const EMPTY: LineCell = { text: '', state: 'read' };

/** What cells of records are made from: the corrected ones, and running totals by measure. */
interface Beside {
  readonly corrected: ReadonlySet<string>;
  readonly running: ReadonlyMap<number, Float64Array>;
}

/** Lines from..from+count-1 as the page shows them; of heavy ones fewer than were asked for. */
export function* answerLines(held: Held, { tally, from, count }: ArgsOf<'lines'>): Steps<Line[]> {
  const l = yield* held.ledger(tally);
  const running = new Map<number, Float64Array>();
  for (const { measure, cells } of l.columns.slots)
    if (cells && measure >= 0 && l.spec.measures[measure].kind === 'running')
      running.set(measure, yield* l.running(measure));
  const beside = { corrected: correctedCells(l.held.doc), running };
  const out: Line[] = [];
  const fits = fitting();
  for (let n = from; n < Math.min(from + count, l.lines.length); n++) {
    const line = lineOf(l, l.lines.at(n), beside);
    if (!fits(line)) break;
    out.push(line);
  }
  return out;
}

function lineOf(l: LedgerLayout, line: LedgerLine, beside: Beside): Line {
  if (line.kind === 'record') return recordLine(l, line, beside);
  const { level, group } = line;
  const { tree, figures } = l.ledger;
  const count = figures.records[level][group];
  const aside = l.rows.end[level][group] - l.rows.first[level][group] - count;
  const totals = line.kind === 'total' || line.carriesTotals;
  return {
    kind: line.kind,
    level,
    label: tree.keys[level].label(tree.levels[level].code[group]),
    keys: groupKeys(tree, level, group),
    count,
    aside,
    open: line.kind === 'total' || line.open,
    totals,
    record: -1,
    ...asCells(totals ? l.columns.slots.map((slot) => groupCell(l, slot, level, group)) : []),
  };
}

const asCells = (cells: readonly LineCell[]): Pick<Line, 'cells' | 'states'> => ({
  cells: cells.map((cell) => cell.text),
  states: statesOf(cells.map((cell) => cell.state)),
});

/** A group's figure in a slot. */
function groupCell(l: LedgerLayout, slot: Slot, level: number, group: number): LineCell {
  if (slot.measure < 0) return EMPTY;
  const at = (k: number): number => l.ledger.figures.levels[level][k][group];
  const value = at(slot.measure);
  const rests = l.ledger.own.resting.at(level + 1, slot.measure, group);
  return {
    text: l.text(slot.measure, at),
    state: value !== value ? 'none' : rests?.much ? 'rests' : 'read',
  };
}

function recordLine(
  l: LedgerLayout,
  { record, row, level }: Extract<LedgerLine, { kind: 'record' }>,
  beside: Beside,
): Line {
  const { naming } = l.columns;
  const { doc, table, stand } = l.held;
  return {
    kind: 'record',
    level,
    label: naming
      ? cellOf(doc, columnOf(table, naming), record, beside.corrected).text
      : `Record ${recordNumber(record)}`,
    keys: [],
    count: 1,
    aside: has(stand.ladder.setAside, record) ? 1 : 0,
    open: false,
    totals: false,
    record,
    ...asCells(l.columns.slots.map((slot) => recordCell(l, slot, record, row, beside))),
  };
}

function recordCell(
  l: LedgerLayout,
  slot: Slot,
  record: number,
  row: number,
  { corrected, running }: Beside,
): LineCell {
  const { doc, table } = l.held;
  const totals = running.get(slot.measure);
  if (totals) {
    const value = totals[row];
    return value === value
      ? { text: figureText(l.figureColumns[slot.measure], value, doc.formats), state: 'read' }
      : EMPTY;
  }
  if (!slot.cells || slot.column === null) return EMPTY;
  return cellOf(doc, columnOf(table, slot.column), record, corrected);
}
