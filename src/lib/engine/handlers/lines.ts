import { recordNumber } from '../../core/table/recordNumber';
import type { Task } from '../../core/task/task';
import { has } from '../../core/table/bitset';
import { columnOf } from '../../core/table/table';
import { columnsOf } from '../../core/tally/answer/answer';
import { cellText } from '../../core/tally/answer/figureText';
import type { FigureRow } from '../../core/tally/answer/result';
import type { CellState } from '../cellStates';
import { statesOf } from '../cellStates';
import type { Session } from '../session';
import type { LedgerLayout } from '../ledger/layout';
import type { ArgsOf } from '../protocol';
import type { Line } from '../replies/ledger';
import { cellOf, correctedCells, shorten } from './cells';
import { fitting } from './weight';

/** Lines from..from+count-1 as the page shows them; of heavy ones fewer than were asked for. */
export function* answerLines(
  session: Session,
  { tally, from, count }: ArgsOf<'lines'>,
): Task<Line[]> {
  const l = yield* session.ledger(tally);
  const corrected = correctedCells(l.session.doc);
  const out: Line[] = [];
  const fits = fitting();
  for (let n = from; n < Math.min(from + count, l.lines.length); n++) {
    const line = lineAt(l, n, corrected);
    if (!fits(line)) break;
    out.push(line);
  }
  return out;
}

/** A row of the ledger's table as the page draws it. */
function lineAt(l: LedgerLayout, n: number, corrected: ReadonlySet<string>): Line {
  const line = l.lines.at(n);
  const row = l.table.row(n);
  if (line.kind === 'record') return recordLine(l, row, line.record, corrected);
  const { level, group } = line;
  const { tree, figures } = l.ledger;
  const count = figures.records[level][group];
  const totals = line.kind === 'total' || line.carriesTotals;
  return {
    kind: line.kind,
    level,
    label: tree.keys[level].label(tree.levels[level].code[group]),
    keys: [...(row.keys ?? [])],
    count,
    aside: l.rows.end[level][group] - l.rows.first[level][group] - count,
    open: line.kind === 'total' || line.open,
    totals,
    record: -1,
    ...(totals ? groupCells(l, row) : { cells: [], states: '', gaps: [] }),
  };
}

/** The figures of a group. */
function groupCells(l: LedgerLayout, row: FigureRow): Pick<Line, 'cells' | 'states' | 'gaps'> {
  const first = l.table.columns.length - l.columns.slots.length;
  const rests = new Set(
    row.marks?.flatMap(({ kind, column }) => (kind === 'rests' ? [column] : [])),
  );
  const gaps = row.marks?.filter(({ kind }) => kind === 'gaps') ?? [];
  const states = l.columns.slots.map(({ measure }, s): CellState => {
    if (measure < 0) return 'read';
    if (row.cells[first + s] === null) return 'none';
    return rests.has(first + s) ? 'rests' : 'read';
  });
  return {
    cells: l.columns.slots.map(({ measure }, s) =>
      measure < 0 ? '' : cellText(l.table, row, first + s, l.session.doc.formats),
    ),
    states: statesOf(states),
    gaps: gaps.length
      ? l.columns.slots.map((_, s) => gaps.find(({ column }) => column === first + s)?.short ?? '')
      : [],
  };
}

function recordLine(
  l: LedgerLayout,
  row: FigureRow,
  record: number,
  corrected: ReadonlySet<string>,
): Line {
  const { naming, slots } = l.columns;
  const { doc, table, resolved } = l.session;
  const columns = columnsOf(l.table, row);
  const first = columns.length - slots.length;
  const stateOf = (id: string): ReturnType<typeof cellOf> =>
    cellOf(doc, columnOf(table, id), record, corrected);
  const cells = slots.map((_, s) => {
    // A running total, or nothing, stands where there is no cell of the record.
    const id = columns[first + s].measure ? undefined : columns[first + s].column;
    if (id !== undefined) return stateOf(id);
    const text =
      row.cells[first + s] === null
        ? ''
        : cellText({ columns, labels: l.table.labels }, row, first + s, doc.formats);
    return { text: shorten(text), state: 'read' as const };
  });
  return {
    kind: 'record',
    level: l.ledger.tree.levels.length,
    label: naming ? stateOf(naming).text : `Record ${recordNumber(record)}`,
    keys: [],
    count: 1,
    aside: has(resolved.ladder.setAside, record) ? 1 : 0,
    open: false,
    totals: false,
    record,
    cells: cells.map(({ text }) => text),
    states: statesOf(cells.map(({ state }) => state)),
    gaps: [],
  };
}
