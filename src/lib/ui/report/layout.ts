import type { Piece } from './pieces';

/** A piece with the room that it takes on a page, in CSS pixels. */
export interface Measured {
  readonly piece: Piece;
  readonly height: number;
  /** Of a table: its head, and each of its rows. */
  readonly head?: number;
  readonly rows?: readonly number[];
  /** Begins on a new page. */
  readonly fresh?: boolean;
}

/** Rows of a table that stand together at a page's end at least. */
const TOGETHER = 2;

/**
 * Pieces laid out on pages of one height. A caption stands with what it is of, a chart on one page;
 * a table goes on over pages, with at least two rows at each end where it can. A piece higher than a
 * page stands on a page of its own.
 */
export function paginate(pieces: readonly Measured[], height: number): Piece[][] {
  const pages: Piece[][] = [[]];
  let used = 0;
  const turn = (): void => {
    if (pages[pages.length - 1].length === 0) return;
    pages.push([]);
    used = 0;
  };
  const put = (piece: Piece, needs: number): void => {
    pages[pages.length - 1].push(piece);
    used += needs;
  };
  pieces.forEach((measured, k) => {
    if (measured.fresh) turn();
    const { piece } = measured;
    if (piece.kind === 'table') {
      rowsOnPages(measured, height, () => used, turn, put);
      return;
    }
    const needs = measured.height + (piece.kind === 'caption' ? leastOf(pieces[k + 1]) : 0);
    if (used + needs > height) turn();
    put(piece, measured.height);
  });
  return pages;
}

/** The least of a piece that can stand at the end of a page. */
function leastOf(next: Measured | undefined): number {
  if (!next) return 0;
  return next.piece.kind === 'table'
    ? (next.head ?? 0) + sum((next.rows ?? []).slice(0, TOGETHER))
    : next.height;
}

function rowsOnPages(
  { piece, head = 0, rows = [], height: whole }: Measured,
  height: number,
  used: () => number,
  turn: () => void,
  put: (piece: Piece, needs: number) => void,
): void {
  if (piece.kind !== 'table') return;
  // What a table takes besides its head and rows: its edges.
  const edges = Math.max(0, whole - head - sum(rows));
  let from = 0;
  while (from < rows.length) {
    if (used() + edges + head + sum(rows.slice(from, from + TOGETHER)) > height) turn();
    let room = height - used() - edges - head;
    let to = from;
    while (to < rows.length && (rows[to] <= room || to === from)) room -= rows[to++];
    // A last row does not stand alone on the next page.
    if (rows.length - to === 1 && to - from > TOGETHER) to--;
    put({ ...piece, from, to }, edges + head + sum(rows.slice(from, to)));
    from = to;
    if (from < rows.length) turn();
  }
  if (rows.length === 0) put(piece, whole);
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** A sheet in millimetres. */
export interface Sheet {
  readonly width: number;
  readonly height: number;
}

const SHEETS = { a4: [210, 297], letter: [215.9, 279.4] } as const;
/** Margins in millimetres: at the sides, at the top, and at the foot, where the page's number stands. */
export const MARGIN = { side: 18, top: 16, foot: 20 } as const;
/** CSS pixels in a millimetre. */
export const PX = 96 / 25.4;

export function sheetOf(paper: 'a4' | 'letter', lying: boolean): Sheet {
  const [short, long] = SHEETS[paper];
  return lying ? { width: long, height: short } : { width: short, height: long };
}

/** The room for text on a sheet, in whole CSS pixels. */
export const textRoom = ({ width, height }: Sheet): { width: number; height: number } => ({
  width: Math.floor((width - 2 * MARGIN.side) * PX),
  height: Math.floor((height - MARGIN.top - MARGIN.foot) * PX),
});
