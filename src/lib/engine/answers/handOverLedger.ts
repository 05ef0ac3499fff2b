import { EngineError } from '../../core/errors';
import { groupPath } from '../../core/arrange/tree';
import { MEASURES } from '../../core/measure/measure';
import { inStretches, type Steps } from '../../core/steps/steps';
import { has } from '../../core/table/bitset';
import { fullCell, showCell } from '../../core/table/cell';
import { isText, type Column } from '../../core/table/column';
import { headOf, showCount } from '../../core/table/format';
import { columnOf, namesOf } from '../../core/table/table';
import { columnFor } from '../../core/expression/columnFor';
import { figureFrom, shownColumn } from '../../core/tally/figure';
import { fullFigure } from '../../core/tally/figureText';
import { plainSentence } from '../../core/tally/sentence';
import { ledgerSentence } from '../../core/tally/ledger/sentence';
import { toDelimited, toHtml, type Cell, type Grid, type LineDialect } from '../../core/write/grid';
import { recordsDelimited } from '../../core/write/recordsDelimited';
import type { HeldBench } from '../heldBench';
import type { Foot, LedgerLayout } from '../ledger/layout';
import type { ReplyOf } from '../protocol';
import { putInOrder } from '../../core/table/recordOrder';
import { CLIPBOARD, MOST_COPIED } from './clipboard';

/** The ledger as shown: its level, its order, without folded records, with plain group labels. */
export function* copyShown(l: LedgerLayout, full: boolean): Steps<ReplyOf<'copy'>> {
  if (l.lines.length > MOST_COPIED)
    throw new EngineError(
      'tooMuch',
      `${showCount(l.lines.length)} lines are too many to copy; save them as a file, or fold some groups.`,
    );
  const grid = yield* shownGrid(l, full);
  const tsv = yield* toDelimited(grid, CLIPBOARD);
  const names = namesOf(l.held.table);
  const caption = plainSentence(ledgerSentence(l.spec, names, l.held.listName));
  const html = yield* toHtml(grid, caption);
  return { text: tsv.text, html: html.text, rows: grid.length, guarded: tsv.guarded };
}

export function* fileShown(
  l: LedgerLayout,
  full: boolean,
  dialect: LineDialect,
): Steps<ReplyOf<'file'>> {
  const grid = yield* shownGrid(l, full);
  const { text, guarded } = yield* toDelimited(grid, dialect);
  return { text, guarded, rows: grid.length };
}

/** One column for each group level, one for what names a record, then the slots. */
function* shownGrid(l: LedgerLayout, full: boolean): Steps<Grid> {
  const { table } = l.held;
  const { tree, figures } = l.ledger;
  const depth = tree.levels.length;
  const names = namesOf(table);
  const levels = l.spec.groups.map((g) => names.get(g.column) ?? g.column);
  const naming = l.columns.naming ? columnOf(table, l.columns.naming) : null;
  const heads = [
    ...levels,
    ...(naming ? [naming.name] : []),
    'Records',
    ...l.columns.slots.map((slot) => slotHead(l, slot.column, slot.measure, slot.cells)),
  ];
  const record = (place: number): Cell[] => [
    ...(depth ? groupPath(tree, depth - 1, tree.leafOf[place]) : []).map(label),
    ...(naming ? [recordText(l.held, naming.id, place, full)] : []),
    number('1'),
    ...l.columns.slots.map((slot) =>
      slot.cells && slot.column ? recordText(l.held, slot.column, place, full) : number(''),
    ),
  ];
  const group = (level: number, at: number): Cell[] => {
    const path = groupPath(tree, level, at);
    return [
      ...levels.map((_, l) => (l <= level ? label(path[l]) : label(''))),
      ...(naming ? [number('')] : []),
      number(String(figures.records[level][at])),
      ...l.columns.slots.map((slot) =>
        figureCell(l, slot.measure, (k) => figures.levels[level][k][at], full),
      ),
    ];
  };
  const written = yield* linesWritten(l);
  return {
    heads,
    length: written.length + 1,
    row(n) {
      if (n === written.length)
        return footRow(l, l.foot.counted, levels.length, naming !== null, full);
      const line = l.lines.at(written[n]);
      return line.kind === 'record' ? record(line.record) : group(line.level, line.group);
    },
  };
}

/** Lines that are handed over: records that count, and groups with their totals, once each. */
function* linesWritten({ lines, held }: LedgerLayout): Steps<Int32Array> {
  const { counted } = held.stand.base;
  const written = new Int32Array(lines.length);
  let length = 0;
  yield* inStretches(lines.length, (from, to) => {
    for (let n = from; n < to; n++) {
      const line = lines.at(n);
      const goes =
        line.kind === 'record'
          ? has(counted, line.record)
          : line.kind !== 'group' || line.carriesTotals;
      if (goes) written[length++] = n;
    }
  });
  return written.subarray(0, length);
}

function slotHead(l: LedgerLayout, column: string | null, measure: number, cells: boolean): string {
  const m = measure >= 0 ? l.spec.measures[measure] : null;
  if (!column) return 'Records';
  const c = columnFor(l.held.table, column);
  const shown = m && !cells ? (shownColumn(m, l.held.table) ?? c) : c;
  const name = headOf(c.name, shown.unit);
  return m && !cells ? `${name}, ${MEASURES[m.kind].words}` : name;
}

const label = (text: string): Cell => ({ text, free: true });
/** The minus of print would make the next program take a number for text. */
const plainMinus = (text: string): string => text.replace('−', '-');
/** A number on its way out. */
const number = (text: string): Cell => ({ text: plainMinus(text), free: false, right: true });

function recordText({ table, doc }: HeldBench, id: string, record: number, full: boolean): Cell {
  const column = columnOf(table, id);
  const text = full ? fullCell(column, record) : showCell(column, record, doc.formats[id]);
  if (isText(column) || column.unread.has(record)) return label(text);
  return { ...number(text), right: column.type === 'number' };
}

/** @param at figures by place of the measure */
function figureCell(
  l: LedgerLayout,
  measure: number,
  at: (measure: number) => number,
  full: boolean,
): Cell {
  if (measure < 0) return number('');
  const m = l.spec.measures[measure];
  const column = shownColumn(m, l.held.table);
  const text = full ? fullFigure(figureFrom(m, column, at(measure))) : l.text(measure, at);
  const free = l.figureColumns[measure].type === 'text';
  return { ...(free ? label(text) : number(text)), strong: true };
}

function footRow(
  l: LedgerLayout,
  foot: Foot,
  levels: number,
  naming: boolean,
  full: boolean,
): Cell[] {
  const labels = Array.from({ length: levels + (naming ? 1 : 0) }, (_, k) =>
    label(k === 0 ? 'Grand total' : ''),
  );
  return [
    ...labels,
    number(String(foot.records)),
    ...l.columns.slots.map((slot) => figureCell(l, slot.measure, (k) => foot.figures[k], full)),
  ];
}

/** Every column of the counted records, in an order of all. */
export function* fileRecords(
  { table, stand, doc }: HeldBench,
  order: Int32Array,
  full: boolean,
  dialect: LineDialect,
): Steps<ReplyOf<'file'>> {
  const counted = yield* putInOrder(order, stand.base.counted);
  const shown = (column: Column, record: number): string => {
    const text = showCell(column, record, doc.formats[column.id]);
    return isText(column) || column.unread.has(record) ? text : plainMinus(text);
  };
  return yield* recordsDelimited(table, counted, full ? fullCell : shown, dialect);
}
