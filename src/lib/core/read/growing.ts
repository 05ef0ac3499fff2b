/*
 * Columns whose number of records is not known before the last one. They grow block by block: an array
 * that doubles holds up to three times its values while it is copied, which is what a list of many
 * millions of records would be refused for.
 */

/** Values of the first block, and of each further one. */
const FIRST = 1 << 12;
const BLOCK = 1 << 16;

/** Numbers in blocks of an array of one kind. */
abstract class Growing<T extends Float64Array<ArrayBuffer> | Int32Array<ArrayBuffer>> {
  #full: T[] = [];
  #before = 0;
  /** The block that is being filled, and how far. */
  protected block: T = this.make(FIRST);
  protected at = 0;

  protected abstract make(length: number): T;

  get length(): number {
    return this.#before + this.at;
  }

  /** A further block, where the last one is full. */
  protected more(): void {
    this.#full.push(this.block);
    this.#before += this.block.length;
    this.block = this.make(BLOCK);
    this.at = 0;
  }

  /** All of them as one array; what is pushed next begins anew. */
  take(): T {
    const all = this.make(this.length);
    let at = 0;
    // Each block is let go as soon as it is copied: twice the values are never held.
    for (let block = this.#full.shift(); block; block = this.#full.shift()) {
      all.set(block, at);
      at += block.length;
    }
    for (let k = 0; k < this.at; k++) all[at + k] = this.block[k];
    this.#before = 0;
    this.block = this.make(FIRST);
    this.at = 0;
    return all;
  }
}

/** Float64 values that grow by blocks. */
export class GrowingValues extends Growing<Float64Array<ArrayBuffer>> {
  protected make(length: number): Float64Array<ArrayBuffer> {
    return new Float64Array(length);
  }

  push(value: number): void {
    if (this.at === this.block.length) this.more();
    this.block[this.at++] = value;
  }
}

/** Codes of text that grow by blocks. */
export class GrowingCodes extends Growing<Int32Array<ArrayBuffer>> {
  protected make(length: number): Int32Array<ArrayBuffer> {
    return new Int32Array(length);
  }

  push(code: number): void {
    if (this.at === this.block.length) this.more();
    this.block[this.at++] = code;
  }

  /** The code pushed last; there is one. */
  get last(): number {
    return this.block[this.at - 1];
  }
}
