import { TallyRefused } from '../errors';
import { has, type Bitset } from '../table/bitset';
import type { Column } from '../table/column';
import { DistinctNumbers } from '../table/distinctNumbers';
import { showCount } from '../table/format';
import type { Table } from '../table/table';
import { inStretches, type Task } from '../task/task';
import { CODES, KeptColumn } from './keptColumn';
import { SummedColumn } from './summedColumn';

/** Which columns of a list matter, and in which way. */
export interface Roles {
  /** Columns whose values are kept: keys, conditions, distinct counts. */
  readonly kept: readonly string[];
  /** Columns of numbers that are only added up, averaged, or looked through for extremes. */
  readonly summed: readonly string[];
  /** Of those summed: the ones whose deviations are asked for. */
  readonly squared?: readonly string[];
}

/**
 * A part of a list as a question resolves it: a stretch of its records, or rows that stand for several each, as a
 * database groups its own.
 */
export interface Part {
  readonly table: Table;
  readonly narrowed: Bitset;
  readonly counted: Bitset;
}

/** A list in which each row stands for all records that are alike in the columns kept. */
export interface Condensed {
  readonly table: Table;
  readonly narrowed: Bitset;
  readonly counted: Bitset;
}

/** Rows that a condensed list may have. */
export const MOST_ROWS = 1 << 23;

/**
 * Partial aggregates of a list that comes in parts, whatever their number and order: each part is
 * reduced to the records that are alike in the columns kept, and added to what stood before. Sums are
 * added with their lost digits (Neumaier 1974), squares by Chan, Golub and LeVeque (1983), so that any
 * cutting of a list comes to the same figures.
 *
 * @example
 * const condenser = new Condenser({ kept: ['depot'], summed: ['fee'] });
 * for (const part of parts) finish(condenser.add(part));
 * const { table } = condenser.finish(); // a row for each depot, its weight, and Moments of its fees
 */
export class Condenser {
  readonly #roles: Roles;
  #kept: KeptColumn[] | null = null;
  #summed: SummedColumn[] = [];
  /** Rows by whether they count, then by the row so far and the next code: a table for each column. */
  readonly #byState = new DistinctNumbers(3);
  #pairs: DistinctNumbers[] = [];
  #rows = 0;
  /** Of each row its place among those of the part at hand; −1 between parts. */
  #local = new Int32Array(0);
  #weights = new Float64Array(256);
  /** 0: not narrowed to, 1: narrowed to and set aside, 2: counted. */
  #states = new Uint8Array(256);

  /** @param most rows that may be kept apart */
  constructor(
    roles: Roles,
    readonly most = MOST_ROWS,
  ) {
    this.#roles = roles;
  }

  /** Adds a part. @throws TallyRefused where too many different records are met */
  *add(part: Part): Task<void> {
    const { table } = part;
    this.#kept ??= this.#begin(table);
    const rowOf = yield* this.#rowsOf(part);
    const { weights } = table;
    for (let i = 0; i < rowOf.length; i++) this.#weights[rowOf[i]] += weights ? weights[i] : 1;
    yield undefined;
    if (this.#summed.length === 0) return;
    const { localOf, rows } = this.#localRows(rowOf);
    for (const column of this.#summed) yield* column.add(table, localOf, rows, this.#rows);
  }

  /** The rows that a part has, and by their places the row of each record: few of many. */
  #localRows(rowOf: Int32Array): { localOf: Int32Array; rows: number[] } {
    if (this.#local.length < this.#rows) this.#local = new Int32Array(2 * this.#rows).fill(-1);
    const local = this.#local;
    const rows: number[] = [];
    const localOf = new Int32Array(rowOf.length);
    for (let i = 0; i < rowOf.length; i++) {
      const row = rowOf[i];
      if (local[row] < 0) local[row] = rows.push(row) - 1;
      localOf[i] = local[row];
    }
    for (const row of rows) local[row] = -1;
    return { localOf, rows };
  }

  #begin({ columns }: Table): KeptColumn[] {
    const find = (id: string): Column => {
      const column = columns.find((c) => c.id === id);
      if (!column) throw new RangeError(`There is no column “${id}”.`);
      return column;
    };
    this.#pairs = this.#roles.kept.map(() => new DistinctNumbers(this.most));
    this.#summed = this.#roles.summed.map((id) => new SummedColumn(id));
    return this.#roles.kept.map((id) => new KeptColumn(find(id)));
  }

  /** The row of each record, new ones noted. */
  *#rowsOf({ table, narrowed, counted }: Part): Task<Int32Array> {
    const kept = this.#kept ?? [];
    const rows = new Int32Array(table.length);
    const states = new Uint8Array(table.length);
    for (let i = 0; i < rows.length; i++) {
      states[i] = has(counted, i) ? 2 : has(narrowed, i) ? 1 : 0;
      rows[i] = this.#byState.placeOf(states[i]);
    }
    const codes: Int32Array[] = [];
    for (const [k, column] of kept.entries()) {
      const own = yield* column.codesOf(table);
      codes.push(own);
      const pairs = this.#pairs[k];
      try {
        yield* inStretches(rows.length, (from, to) => {
          for (let i = from; i < to; i++) rows[i] = pairs.placeOf(rows[i] * CODES + own[i]);
        });
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        throw new TallyRefused(
          `Over ${showCount(this.most)} different records would have to be kept apart: group by fewer columns, or read the list as a whole.`,
        );
      }
    }
    yield* inStretches(rows.length, (from, to) => {
      for (let i = from; i < to; i++) {
        // Places are given in the order in which they are met.
        if (rows[i] < this.#rows) continue;
        this.#rows = rows[i] + 1;
        this.#note(rows[i], states[i]);
        for (const [k, column] of kept.entries()) column.note(codes[k][i]);
      }
    });
    return rows;
  }

  #note(row: number, state: number): void {
    if (row >= this.#weights.length) {
      const weights = new Float64Array(2 * row);
      weights.set(this.#weights);
      this.#weights = weights;
      const states = new Uint8Array(2 * row);
      states.set(this.#states);
      this.#states = states;
    }
    this.#states[row] = state;
  }

  /** What all parts come to. */
  finish(): Condensed {
    const size = this.#rows;
    const bits = (least: number): Bitset => {
      const set = new Uint32Array((size + 31) >>> 5);
      for (let row = 0; row < size; row++)
        if (this.#states[row] >= least) set[row >>> 5] |= 1 << (row & 31);
      return set;
    };
    return {
      table: {
        length: size,
        columns: [
          ...(this.#kept ?? []).map((column) => column.column()),
          ...this.#summed.map((column) => column.column(size)),
        ],
        weights: this.#weights.slice(0, size),
      },
      narrowed: bits(1),
      counted: bits(2),
    };
  }
}
