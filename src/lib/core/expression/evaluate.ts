import { STRIDE, type Task } from '../task/task';
import { wordsFor, type Bitset } from '../table/bitset';
import { isText, type Column, type ColumnType, type ScalarColumn } from '../table/column';
import type { Table } from '../table/table';
import { checkCondition, checkExpression } from './check';
import { BLOCK } from './blocks';
import { compileScalars, compileTexts, fillScalars } from './compile';
import { columnsRead, type Typed } from './types';

/** How a computed column is to be called. */
export interface ComputedFacts {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
}

/**
 * A column from an expression over a list. A record whose value is missing because a cell it needs
 * is unread counts as unread here too, with that cell's text.
 * @throws ExpressionError
 * @example
 * finish(computeColumn(table, '"Fares taken" / NULLIF(boarded, 0)', { id: 'each', name: 'Fare each', unit: '£' }))
 */
export function* computeColumn(table: Table, source: string, facts: ComputedFacts): Task<Column> {
  const typed = checkExpression(source, table.columns);
  if (typed.type === 'text') return yield* textResult(table.length, typed, facts);
  return yield* scalarResult(table.length, typed, facts);
}

/** The type a computed column would have, without computing it. @throws ExpressionError */
export function expressionType(source: string, columns: readonly Column[]): ColumnType {
  const { type } = checkExpression(source, columns);
  return type === 'null' ? 'number' : type;
}

function* textResult(length: number, typed: Typed, facts: ComputedFacts): Task<Column> {
  const node = compileTexts(typed);
  const codes = new Int32Array(length);
  const known = new Map<string, number>();
  for (let from = 0; from < length; from += BLOCK) {
    const n = Math.min(BLOCK, length - from);
    node.run(from, n);
    for (let i = 0; i < n; i++) {
      const text = node.data[i];
      let code = -1;
      if (text !== null && text !== '') {
        code = known.get(text) ?? known.size;
        if (code === known.size) known.set(text, code);
      }
      codes[from + i] = code;
    }
    if (from % STRIDE === 0) yield from / length;
  }
  return { ...facts, type: 'text', codes, dictionary: [...known.keys()] };
}

function* scalarResult(length: number, typed: Typed, facts: ComputedFacts): Task<Column> {
  const values = new Float64Array(length);
  yield* fillScalars(typed, values);
  return {
    ...facts,
    type: typed.type === 'null' || typed.type === 'text' ? 'number' : typed.type,
    values,
    unread: unreadBehind(typed, values),
    decimals: typed.type === 'number' ? decimalsOf(typed, values) : 0,
    percent: false,
    grain: 'day',
  };
}

/** Records without a result because a cell the expression reads is unread, with that cell's text. */
function unreadBehind(typed: Typed, values: Float64Array): Map<number, string> {
  const unread = new Map<number, string>();
  for (const column of columnsRead(typed))
    if (!isText(column))
      for (const [record, text] of column.unread)
        if (values[record] !== values[record] && !unread.has(record)) unread.set(record, text);
  return unread;
}

/** Decimals to show: none for whole values, else those of the columns, two at least. */
function decimalsOf(typed: Typed, values: Float64Array): number {
  if (values.every((v) => v !== v || v % 1 === 0)) return 0;
  const read = [...columnsRead(typed)].filter((c): c is ScalarColumn => !isText(c));
  return Math.min(6, Math.max(2, ...read.map((c) => c.decimals)));
}

/** Records where a condition holds, and where it does not; a record in neither is unknown. */
export function* conditionOutcome(table: Table, source: string): Task<{ yes: Bitset; no: Bitset }> {
  const node = compileScalars(checkCondition(source, table.columns));
  const words = wordsFor(table.length);
  const yes = new Uint32Array(words);
  const no = new Uint32Array(words);
  for (let from = 0; from < table.length; from += BLOCK) {
    const n = Math.min(BLOCK, table.length - from);
    node.run(from, n);
    for (let i = 0; i < n; i++) {
      const v = node.data[i];
      const bit = 1 << ((from + i) & 31);
      if (v === 1) yes[(from + i) >>> 5] |= bit;
      else if (v === 0) no[(from + i) >>> 5] |= bit;
    }
    if (from % STRIDE === 0) yield undefined;
  }
  return { yes, no };
}
