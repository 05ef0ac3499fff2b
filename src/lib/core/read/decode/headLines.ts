import { counted } from '../../table/format';
import { doubt, type Doubt } from '../doubts';
import type { Block } from './blocks';
import { BLANK, type GridCell } from './cellGrid';

/** Cells merged into one, from one corner to the other, both in it; from 0. */
export interface Merged {
  readonly s: { readonly r: number; readonly c: number };
  readonly e: { readonly r: number; readonly c: number };
}

/** What was joined: as a doubt, and how many of the merged cells are heads. */
export interface HeadLines {
  readonly doubts: readonly Doubt[];
  readonly merged: number;
}

/**
 * Heads that stand over two lines: cells merged over several columns, with words below each of these
 * columns and more beside them than one title. The upper is written before each of the lower, “2024 Jan”, and the upper
 * line is gone.
 * @param rows the cells of a sheet, changed in place
 */
export function joinHeadLines(rows: GridCell[][], merges: readonly Merged[]): HeadLines {
  const across = new Map<number, Merged[]>();
  for (const merged of merges)
    if (merged.s.r === merged.e.r && merged.e.c > merged.s.c)
      across.set(merged.s.r, [...(across.get(merged.s.r) ?? []), merged]);
  const made: string[] = [];
  let merged = 0;
  // From the last on: a line that goes moves those below it.
  for (const [at, spans] of [...across].sort(([a], [b]) => b - a)) {
    const [upper, lower, record] = [rows[at], rows[at + 1], rows[at + 2]];
    if (!upper || !lower || !record || !areHeads(upper, lower, spans)) continue;
    for (const { s, e } of spans)
      for (let c = s.c + 1; c <= e.c; c++) upper[c] = upper[s.c] ?? BLANK;
    const heads = Array.from({ length: Math.max(upper.length, lower.length) }, (_, c): GridCell => {
      const texts = [upper[c], lower[c]].flatMap((cell) => cell?.text.trim() || []);
      const text = [...new Set(texts)].join(' ');
      return text ? { kind: 'text', text } : BLANK;
    });
    made.unshift(heads[spans[0].s.c].text);
    merged += spans.length;
    rows.splice(at, 2, heads);
  }
  const places = made.length > 1 ? `, in ${counted(made.length, 'place')}` : '';
  const words = `Heads stand over two lines${places}; they are read as one: “${made[0]}”.`;
  return { doubts: made.length ? [doubt('headLines', made.length, words)] : [], merged };
}

/** Merged cells that lie within so many rows and columns, by their places there. */
export const mergedWithin = (
  merges: readonly Merged[],
  { top, bottom, left, right }: Block,
): Merged[] =>
  merges
    .filter(({ s, e }) => s.r >= top && e.r < bottom && s.c >= left && e.c < right)
    .map(({ s, e }) => ({
      s: { r: s.r - top, c: s.c - left },
      e: { r: e.r - top, c: e.c - left },
    }));

function areHeads(
  upper: readonly GridCell[],
  lower: readonly GridCell[],
  spans: readonly Merged[],
): boolean {
  const isWord = (cell: GridCell | undefined): boolean =>
    cell?.kind === 'text' && cell.text.trim() !== '';
  const named = spans.every(({ s, e }) =>
    Array.from({ length: e.c - s.c + 1 }, (_, k) => isWord(lower[s.c + k])).every(Boolean),
  );
  const filled = upper.filter((cell) => cell && cell.kind !== 'blank').length;
  const words = lower.every((cell) => cell.kind === 'text' || cell.kind === 'blank');
  return named && words && filled > 1;
}
