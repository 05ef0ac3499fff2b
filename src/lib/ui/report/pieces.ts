import type { Report, ReportSection, ReportTable } from '../../engine/report';
import type { Row } from '../../engine/protocol';
import { shownColumns, type ShownColumn } from '../tally/columns';
import { sourceOfTables, type Source } from '../tally/source';

/** A part of the report that stands on a page in one piece, or, a table, row by row. */
export type Piece =
  | { readonly kind: 'title' }
  | { readonly kind: 'scope' }
  | { readonly kind: 'caption'; readonly section: number }
  | { readonly kind: 'chart'; readonly section: number }
  | TablePiece
  | { readonly kind: 'after'; readonly section: number }
  | { readonly kind: 'known' }
  | { readonly kind: 'moved' };

/** Rows `from` to before `to` of a table, and of its columns of figures those of one band. */
export interface TablePiece {
  readonly kind: 'table';
  readonly section: number;
  readonly table: number;
  readonly band: number;
  readonly from: number;
  readonly to: number;
}

/** All pieces in their order, tables whole. @param width of a page's text in CSS pixels */
export function piecesOf(report: Report, width: number): Piece[] {
  const out: Piece[] = [{ kind: 'title' }, { kind: 'scope' }];
  report.sections.forEach(({ item, answered, tables }, section) => {
    out.push({ kind: 'caption', section });
    const shows = item.shows ?? 'both';
    const drawn = shows !== 'table' && item.tally.kind !== 'ledger' && item.view.chart !== false;
    if (drawn && answered.tables.length) out.push({ kind: 'chart', section });
    const shown = tablesShown(report.sections[section]);
    tables.slice(0, shown).forEach(({ head, rows, printed: to }, table) => {
      const bands = bandsOf({ head, rows, printed: to }, width).length;
      for (let band = 0; band < bands; band++)
        out.push({ kind: 'table', section, table, band, from: 0, to });
    });
    out.push({ kind: 'after', section });
  });
  if (report.known.length) out.push({ kind: 'known' });
  if (report.moved) out.push({ kind: 'moved' });
  return out;
}

/** How many of a section's tables are printed. */
export const tablesShown = ({ item, tables }: ReportSection): number =>
  item.shows === 'chart' ? 0 : item.shows === 'all' ? tables.length : Math.min(1, tables.length);

/** Columns of figures that stand beside one another on a page; the labels stand before each band. */
export interface ColumnBand {
  readonly tree: boolean;
  readonly labels: readonly ShownColumn[];
  readonly figures: readonly ShownColumn[];
}

/* Measures of the report's small print: a digit, and the room between two columns. */
const DIGIT = 6.1;
const GAP = 16;
const LABEL = 5.6;

/** A wide table in bands that fit on a page: every figure stands in one of them. */
export function bandsOf(
  { head, rows: all, printed }: Pick<ReportTable, 'head' | 'rows' | 'printed'>,
  width: number,
): ColumnBand[] {
  const rows = all.slice(0, printed);
  const { tree, labels, figures } = shownColumns(head);
  const widest = (column: ShownColumn, each: number): number => {
    const cells = rows.reduce((most, row) => Math.max(most, row.cells[column.at].length), 0);
    const words = Math.max(...column.words.split(/[\s-]/).map((w) => w.length), 4);
    return Math.max(cells, words, Math.min(column.sub.length, 12)) * each + GAP;
  };
  const named =
    labels.reduce((sum, c) => sum + Math.min(190, widest(c, LABEL)), 0) + (tree ? 24 : 0);
  const room = Math.max(120, width - named);
  const bands: ShownColumn[][] = [[]];
  let used = 0;
  for (const column of figures) {
    const needs = widest(column, DIGIT);
    if (used + needs > room && bands[bands.length - 1].length) {
      bands.push([]);
      used = 0;
    }
    bands[bands.length - 1].push(column);
    used += needs;
  }
  return bands.map((band) => ({ tree, labels, figures: band }));
}

/** A note at the foot of a section, and the figures that it is of. */
export interface FootNote {
  readonly n: number;
  readonly words: string;
}

const MOST_NOTES = 24;

/** What is said of single figures of a section: each saying once, numbered in the order met. */
export class FootNotes {
  readonly notes: readonly FootNote[];
  /** Figures whose notes are no longer written out. */
  readonly others: number;
  readonly #at = new Map<string, number>();

  constructor(tables: readonly ReportTable[]) {
    const said = new Map<string, number>();
    let others = 0;
    for (const { head, rows, printed } of tables)
      for (const row of rows.slice(0, printed))
        for (const mark of row.marks) {
          if (mark.kind === 'forecast') continue;
          if (!said.has(mark.words) && said.size >= MOST_NOTES) {
            others++;
            continue;
          }
          const n = said.get(mark.words) ?? said.size + 1;
          said.set(mark.words, n);
          this.#at.set(key(head.name, row, mark.column ?? 0), n);
        }
    this.notes = [...said].map(([words, n]) => ({ n, words }));
    this.others = others;
  }

  of(table: string, row: Row, column: number): number | undefined {
    return this.#at.get(key(table, row, column));
  }
}

const key = (table: string, row: Row, column: number): string => `${table} ${row.place} ${column}`;

export const sourceOfSection = ({ tables, shape }: ReportSection): Source =>
  sourceOfTables(tables, shape);
