import type { Row } from '../../engine/protocol';
import { numberAt, type SourceTable } from './source';

/**
 * Shading of a cross-tab's figures by their distance from what the margins lead one to expect: for
 * what adds, row total × column total ÷ grand total; for the rest, the figure of the whole. Above is
 * positive. It is a guide for the eye; the figures say the rest.
 */
export function crossShade(table: SourceTable): ((row: Row, column: number) => number) | null {
  const { head, whole: grand } = table;
  const whole = head.columns.findIndex((c) => c.key === 'all.m1');
  if (!grand || whole < 0) return null;
  const parts = head.columns.flatMap((c, k) => (/^a\d+\.m1$/.test(c.key) ? [k] : []));
  const total = numberAt(grand, whole);
  const adds =
    head.columns[whole].type === 'count' ||
    /^sum /.test(head.columns[whole].title.split(' › ').at(-1) ?? '');
  return (row, column) => {
    if (row.kind !== 'group' || !parts.includes(column)) return 0;
    const value = numberAt(row, column);
    const expected = adds ? (numberAt(row, whole) * numberAt(grand, column)) / total : total;
    if (!Number.isFinite(value) || !Number.isFinite(expected) || expected === 0) return 0;
    return Math.max(-1, Math.min(1, (value - expected) / Math.abs(expected)));
  };
}

/** The matrix of overlaps, by the share of the larger row that is in both; no other table. */
export function overlapShade(table: SourceTable): ((row: Row, column: number) => number) | null {
  if (table.head.name !== 'overlap') return null;
  return (row, column) => {
    // However the table is sorted, the columns stand in the order of its rows as they were made.
    const own = row.place + table.head.labels;
    return column === own ? 0 : numberAt(row, column) / Math.max(1, numberAt(row, own));
  };
}
