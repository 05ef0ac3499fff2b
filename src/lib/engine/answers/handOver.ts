import { groupPath } from '../../core/arrange/tree';
import { fullCell, showCell } from '../../core/table/cell';
import { isText } from '../../core/table/column';
import { has } from '../../core/table/bitset';
import { columnOf } from '../../core/table/table';
import { showCount } from '../../core/table/format';
import { MEASURES } from '../../core/measure/measure';
import { fullFigure } from '../../core/tally/ledger/figureText';
import { describeLedger } from '../../core/tally/ledger/sentence';
import type { Steps } from '../../core/steps/steps';
import {
  delimitedLine,
  toDelimited,
  toHtml,
  type Cell,
  type Grid,
  type Guarded,
} from '../../core/write/grid';
import type { ReplyOf } from '../protocol';
import type { Foot, Reckoned } from '../reckoning';
import { measureColumn, shownFigure } from './lines';

/** Lines a clipboard can take; more go into a file. */
export const MOST_COPIED = 200_000;

export class TooMuchToCopy extends Error {
  override name = 'TooMuchToCopy';
}

/** The ledger as shown: its level, its order, without folded records, with plain group labels. */
export function copyShown(r: Reckoned, full: boolean, listName: string): ReplyOf<'copy'> {
  if (r.lines.length > MOST_COPIED)
    throw new TooMuchToCopy(
      `${showCount(r.lines.length)} lines are too many to copy; save them as a file, or fold some groups.`,
    );
  const grid = shownGrid(r, full);
  const tsv = toDelimited(grid, '\t');
  const html = toHtml(grid, describeLedger(r.spec, r.names, listName));
  return { text: tsv.text, html: html.text, rows: grid.rows.length, guarded: tsv.guarded };
}

export function fileShown(r: Reckoned, full: boolean): ReplyOf<'file'> {
  const grid = shownGrid(r, full);
  const { text, guarded } = toDelimited(grid, ',');
  return { text, guarded, rows: grid.rows.length };
}

/** One column for each group level, one for what names a record, then the slots. */
function shownGrid(r: Reckoned, full: boolean): Grid {
  const depth = r.tree.levels.length;
  const levels = r.spec.groups.map((g) => r.names.get(g.column) ?? g.column);
  const naming = r.columns.naming ? columnOf(r.table, r.columns.naming) : null;
  const heads = [
    ...levels,
    ...(naming ? [naming.name] : []),
    'Records',
    ...r.columns.slots.map((slot) => slotHead(r, slot.column, slot.measure, slot.cells)),
  ];
  const rows: Cell[][] = [];
  for (let n = 0; n < r.lines.length; n++) {
    const line = r.lines.at(n);
    if (line.kind === 'record') {
      if (!has(r.ladder.counted, line.record)) continue;
      const path = depth ? groupPath(r.tree, depth - 1, r.tree.leafOf[line.record]) : [];
      rows.push([
        ...path.map(label),
        ...(naming ? [recordText(r, naming.id, line.record, full)] : []),
        number('1'),
        ...r.columns.slots.map((slot) =>
          slot.cells && slot.column ? recordText(r, slot.column, line.record, full) : number(''),
        ),
      ]);
      continue;
    }
    if (line.kind === 'group' && !line.carriesTotals) continue;
    const path = groupPath(r.tree, line.level, line.group);
    rows.push([
      ...levels.map((_, l) => (l <= line.level ? label(path[l]) : label(''))),
      ...(naming ? [number('')] : []),
      number(String(r.figures.records[line.level][line.group])),
      ...r.columns.slots.map((slot) =>
        figure(r, slot.measure, (k) => r.figures.levels[line.level][k][line.group], full),
      ),
    ]);
  }
  rows.push(footRow(r, r.foot.counted, levels.length, naming !== null, full));
  return { heads, rows };
}

function slotHead(r: Reckoned, column: string | null, measure: number, cells: boolean): string {
  const m = measure >= 0 ? r.spec.measures[measure] : null;
  if (!column) return 'Records';
  const c = columnOf(r.table, column);
  const name = c.unit ? `${c.name} (${c.unit})` : c.name;
  return m && !cells ? `${name}, ${MEASURES[m.kind].says}` : name;
}

const label = (text: string): Cell => ({ text, free: true });
/** A number on its way out. The minus of print would make the next program take it for text. */
const number = (text: string): Cell => ({ text: text.replace('−', '-'), free: false, right: true });

function recordText(r: Reckoned, id: string, record: number, full: boolean): Cell {
  const column = columnOf(r.table, id);
  const text = full ? fullCell(column, record) : showCell(column, record, r.doc.formats[id]);
  if (isText(column) || column.unread.has(record)) return label(text);
  return { ...number(text), right: column.type === 'number' };
}

/** @param at figures by place of the measure */
function figure(
  r: Reckoned,
  measure: number,
  at: (measure: number) => number,
  full: boolean,
): Cell {
  if (measure < 0) return number('');
  const m = r.spec.measures[measure];
  const column = measureColumn(r, m);
  const text = full ? fullFigure(m, column, at(measure)) : shownFigure(r, measure, at);
  const free = column !== null && isText(column) && MEASURES[m.kind].figure === 'column';
  return { ...(free ? label(text) : number(text)), strong: true };
}

function footRow(r: Reckoned, foot: Foot, levels: number, naming: boolean, full: boolean): Cell[] {
  const labels = Array.from({ length: levels + (naming ? 1 : 0) }, (_, k) =>
    label(k === 0 ? 'Grand total' : ''),
  );
  return [
    ...labels,
    number(String(foot.records)),
    ...r.columns.slots.map((slot) => figure(r, slot.measure, (k) => foot.figures[k], full)),
  ];
}

/** Every column of the counted records, in the order of the ledger. */
export function* fileRecords(r: Reckoned, full: boolean): Steps<ReplyOf<'file'>> {
  const guarded: Guarded = { count: 0 };
  const heads = r.table.columns.map((c): Cell => ({
    text: c.unit ? `${c.name} (${c.unit})` : c.name,
    free: true,
  }));
  const parts: string[] = [delimitedLine(heads, ',', guarded)];
  let rows = 0;
  for (let k = 0; k < r.order.length; k++) {
    const record = r.order[k];
    if (!has(r.ladder.counted, record)) continue;
    parts.push(
      delimitedLine(
        r.table.columns.map((c) => recordText(r, c.id, record, full)),
        ',',
        guarded,
      ),
    );
    rows++;
    if (rows % 4096 === 0) yield k / r.order.length;
  }
  return { text: `${parts.join('\r\n')}\r\n`, rows, guarded: guarded.count };
}
