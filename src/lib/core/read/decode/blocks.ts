import type { CellGrid, GridCell } from './cellGrid';

/** A table on a sheet: its rows and columns from 0, the last ones not in it. */
export interface Block {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

const isFilled = (cell: GridCell | undefined): boolean =>
  cell !== undefined && cell.kind !== 'blank' && (cell.kind !== 'text' || cell.text.trim() !== '');

/**
 * The tables that stand on one sheet, in reading order, parted by rows or columns in which nothing
 * stands. Only what is a table by itself (two columns and two rows at least) is parted from another:
 * titles, notes and single columns stay with their neighbour. Parts side by side that fill the same rows
 * are one table with an empty column between; a part below with no heads of its own goes on with the one
 * above. Empty for an empty sheet.
 */
export function blocksOf(grid: CellGrid): Block[] {
  const width = grid.reduce((most, row) => Math.max(most, row.length), 0);
  const all = trimmed(grid, { top: 0, bottom: grid.length, left: 0, right: width });
  return all ? parted(grid, all) : [];
}

/** Cells of a block, to be changed: rows of their own. */
export const cellsOf = (grid: CellGrid, { top, bottom, left, right }: Block): GridCell[][] =>
  grid.slice(top, bottom).map((row) => row.slice(left, right));

/** What is filled of each row of a block, one row after the other. */
function* filledRows(grid: CellGrid, { top, bottom, left, right }: Block): Generator<GridCell[]> {
  for (let n = top; n < bottom; n++) yield grid[n].slice(left, right).filter(isFilled);
}

/** How many cells of a block hold something. */
export function filledIn(grid: CellGrid, block: Block): number {
  let cells = 0;
  for (const row of filledRows(grid, block)) cells += row.length;
  return cells;
}

/** `rows 3 to 52, columns 1 to 5: Day, Route, Fares …` */
export function blockWords(grid: CellGrid, block: Block): string {
  let heads: string[] | null = null;
  for (const row of filledRows(grid, block)) {
    if (row.length < 2) continue;
    heads = row.map(({ text }) => text);
    break;
  }
  const named = heads ? `: ${heads.slice(0, 4).join(', ')}${heads.length > 4 ? ' …' : ''}` : '';
  return `rows ${block.top + 1} to ${block.bottom}, columns ${block.left + 1} to ${block.right}${named}`;
}

function parted(grid: CellGrid, region: Block): Block[] {
  for (const parts of [sideBySide(grid, region), oneBelowTheOther(grid, region)])
    if (parts.length > 1) return parts.flatMap((part) => parted(grid, part));
  return [region];
}

/** A region without the empty rows and columns around it; null where nothing stands in it. */
function trimmed(grid: CellGrid, { top, bottom, left, right }: Block): Block | null {
  let t = Infinity;
  let b = -1;
  let l = Infinity;
  let r = -1;
  for (let n = top; n < bottom; n++) {
    const row = grid[n];
    for (let c = left; c < Math.min(right, row.length); c++) {
      if (!isFilled(row[c])) continue;
      if (n < t) t = n;
      b = n;
      if (c < l) l = c;
      if (c > r) r = c;
    }
  }
  return b < 0 ? null : { top: t, bottom: b + 1, left: l, right: r + 1 };
}

/** Runs of filled places among so many, each `[from, to)`. */
function runsOf(from: number, to: number, filled: (at: number) => boolean): [number, number][] {
  const runs: [number, number][] = [];
  for (let at = from; at < to; at++) {
    if (!filled(at)) continue;
    const last = runs.at(-1);
    if (last?.[1] === at) last[1] = at + 1;
    else runs.push([at, at + 1]);
  }
  return runs;
}

/** Two columns and two rows at least: fewer are a title, a note, a legend. */
const isTable = ({ top, bottom, left, right }: Block): boolean =>
  bottom - top > 1 && right - left > 1;

/** Where nothing stands. */
export const EMPTY: Block = { top: 0, bottom: 0, left: 0, right: 0 };

export const together = (a: Block, b: Block): Block => ({
  top: Math.min(a.top, b.top),
  bottom: Math.max(a.bottom, b.bottom),
  left: Math.min(a.left, b.left),
  right: Math.max(a.right, b.right),
});

/** Neighbours that are not two tables taken together. */
function gathered(parts: readonly Block[], areTwo: (a: Block, b: Block) => boolean): Block[] {
  const out: Block[] = [];
  for (const part of parts) {
    const last = out.at(-1);
    if (last && !(isTable(last) && isTable(part) && areTwo(last, part)))
      out[out.length - 1] = together(last, part);
    else out.push(part);
  }
  return out;
}

function sideBySide(grid: CellGrid, region: Block): Block[] {
  const filled = new Uint8Array(region.right);
  // A title across the top stands over all of them.
  let { top } = region;
  while (top < region.bottom && grid[top].filter(isFilled).length <= 1) top++;
  for (let n = top; n < region.bottom; n++)
    for (let c = region.left; c < Math.min(region.right, grid[n].length); c++)
      if (filled[c] === 0 && isFilled(grid[n][c])) filled[c] = 1;
  const parts = runsOf(region.left, region.right, (c) => filled[c] === 1).flatMap(
    ([left, right]) => trimmed(grid, { ...region, top, left, right }) ?? [],
  );
  return gathered(parts, (a, b) => a.top !== b.top || a.bottom !== b.bottom);
}

function oneBelowTheOther(grid: CellGrid, region: Block): Block[] {
  const { left, right } = region;
  const stands = (n: number): boolean => {
    for (let c = left; c < Math.min(right, grid[n].length); c++)
      if (isFilled(grid[n][c])) return true;
    return false;
  };
  const parts = runsOf(region.top, region.bottom, stands).flatMap(
    ([top, bottom]) => trimmed(grid, { ...region, top, bottom }) ?? [],
  );
  return gathered(parts, (above, below) => {
    const heads = headsOf(grid, below);
    return heads !== null && heads !== headsOf(grid, above);
  });
}

/** The heads of a table that begins with some: words over rows that hold more than words; null for none. */
function headsOf(grid: CellGrid, block: Block): string | null {
  const rows = filledRows(grid, block);
  const heads: GridCell[] = rows.next().value ?? [];
  if (heads.length < 2 || heads.some(({ kind }) => kind !== 'text')) return null;
  for (const row of rows)
    if (row.some(({ kind }) => kind !== 'text'))
      return JSON.stringify(heads.map(({ text }) => text));
  return null;
}
