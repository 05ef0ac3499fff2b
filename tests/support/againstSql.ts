import { expect } from 'vitest';
import type { Table } from '$lib/core/table/table';
import { readDemo } from './demo';
import { sailingsInSql } from './sql';

/** Tallies of the demo against figures worked out by SQLite from the same file. */
export const table: Table = readDemo('sailings').reading.table;
export const db = sailingsInSql();

type Row = Record<string, number | string | null>;
export const sql = (query: string): Row[] => db.prepare(query).all() as Row[];

/** A group key that ignores case and outer spaces, as the SQL table does. */
export const key = (column: string, more: object = {}) => ({ column, loose: true, ...more });
export const leaf = (column: string, test: object, not = false) => ({
  kind: 'leaf',
  column,
  not,
  test,
});
export const sailed = leaf('Cancelled', { test: 'is', values: ['no'] });

/** Within a millionth; a missing value is none. */
export const near = (v: unknown): unknown =>
  typeof v === 'number' ? expect.closeTo(v, 6) : (v ?? null);
