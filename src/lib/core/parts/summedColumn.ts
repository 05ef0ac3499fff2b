import { Moments, momentsOfGroups } from '../measure/moments';
import {
  isPartial,
  momentsByRow,
  partialColumn,
  type PartialColumn,
} from '../measure/partialColumn';
import { isText, type ScalarColumn } from '../table/column';
import { orderRead } from '../table/recordOrder';
import { columnOf, type Table } from '../table/table';
import type { Task } from '../task/task';

/** A column of numbers that is only added up: its partial aggregates by row. */
export class SummedColumn {
  readonly #id: string;
  #about: ScalarColumn | null = null;
  #moments: Moments | null = null;
  #magnitude = new Float64Array(0);
  #unread = new Float64Array(0);

  constructor(id: string) {
    this.#id = id;
  }

  /**
   * Adds a part.
   * @param localOf of each record the place of its row among `rows`
   * @param size how many rows there are by now
   */
  *add(table: Table, localOf: Int32Array, rows: readonly number[], size: number): Task<void> {
    const column = columnOf(table, this.#id);
    if (isText(column)) throw new RangeError(`“${column.name}” holds no numbers.`);
    if (!this.#about || column.decimals > this.#about.decimals) this.#about = column;
    const byRow = yield* momentsByRow(table, column);
    const part = byRow
      ? yield* byRow.merged(rows.length, localOf)
      : yield* momentsOfGroups(column.values, localOf, rows.length, orderRead(table.length), true);
    const moments = (this.#moments = yield* this.#withRoom(size));
    for (const [k, row] of rows.entries()) moments.merge(row, part, k);
    const [magnitude, unread] = [this.#magnitude, this.#unread];
    if (isPartial(column)) {
      const { partial } = column;
      for (let i = 0; i < localOf.length; i++) {
        magnitude[rows[localOf[i]]] += partial.magnitude[i];
        unread[rows[localOf[i]]] += partial.unread[i];
      }
      return;
    }
    const { values } = column;
    const { weights } = table;
    for (let i = 0; i < values.length; i++) {
      const x = values[i];
      if (x === x) magnitude[rows[localOf[i]]] += Math.abs(x) * (weights ? weights[i] : 1);
    }
    for (const record of column.unread.keys())
      unread[rows[localOf[record]]] += weights ? weights[record] : 1;
  }

  /** The moments with a place for each row: twice as many where there are more than before. */
  *#withRoom(size: number): Task<Moments> {
    const before = this.#moments;
    if (before && before.size >= size) return before;
    const wider = yield* Moments.none(2 * size, 'extremes');
    for (let row = 0; before && row < before.size; row++) wider.merge(row, before, row);
    const [magnitude, unread] = [new Float64Array(2 * size), new Float64Array(2 * size)];
    magnitude.set(this.#magnitude);
    unread.set(this.#unread);
    [this.#magnitude, this.#unread] = [magnitude, unread];
    return wider;
  }

  /** The column with what each row came to. */
  column(size: number): PartialColumn {
    const about = this.#about;
    const moments = this.#moments;
    if (!about || !moments) throw new RangeError(`“${this.#id}” was never met.`);
    const { id, name, unit, type, decimals, percent, grain } = about;
    return partialColumn(
      { id, name, unit, type, decimals, percent, grain },
      {
        moments,
        magnitude: this.#magnitude.slice(0, size),
        unread: this.#unread.slice(0, size),
      },
    );
  }
}
