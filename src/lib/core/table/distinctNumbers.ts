/** Numbers that the first table has room for; each larger one is so many times as large, the last for all. */
const FIRST_ROOM = 256;
const GROWTH = 8;

const bits = new Float64Array(1);
const words = new Uint32Array(bits.buffer);

/** The bits of a number mixed: the last steps of MurmurHash3's 32-bit finalizer over both of its halves. */
function mixed(value: number): number {
  bits[0] = value;
  let h = words[0] ^ Math.imul(words[1], 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/**
 * Distinct numbers, each with its place in the order they were first met: 0, 1, … Open addressing with
 * linear probing (Knuth, The Art of Computer Programming 3, 6.4, Algorithm L). A map that grows to a
 * million keys is moved as a whole now and then, which stops the engine for tens of milliseconds; here
 * what is moved is never more than an eighth of what there is room for then.
 * Zero has one sign; NaN is none of them.
 *
 * @example
 * const met = new DistinctNumbers(values.length);
 * const codes = Int32Array.from(values, (v) => met.placeOf(v));
 */
export class DistinctNumbers {
  #slots: Int32Array;
  #mask: number;
  #values: Float64Array;
  #size = 0;

  /** @param most how many there can be */
  constructor(readonly most: number) {
    this.#values = new Float64Array(Math.min(most, FIRST_ROOM));
    this.#slots = tableFor(this.#values.length);
    this.#mask = this.#slots.length - 1;
  }

  get size(): number {
    return this.#size;
  }

  /** The place of a number, which is noted where it was not met before. */
  placeOf(value: number): number {
    let at = mixed(value + 0) & this.#mask;
    for (;;) {
      const place = this.#slots[at] - 1;
      if (place < 0) return this.#note(at, value + 0);
      if (this.#values[place] === value) return place;
      at = (at + 1) & this.#mask;
    }
  }

  /** The place of a number, −1 where it was not met. */
  find(value: number): number {
    let at = mixed(value + 0) & this.#mask;
    for (;;) {
      const place = this.#slots[at] - 1;
      if (place < 0 || this.#values[place] === value) return place;
      at = (at + 1) & this.#mask;
    }
  }

  /** All of them in the order they were met: an array of its own. */
  values(): Float64Array<ArrayBuffer> {
    return this.#values.slice(0, this.#size);
  }

  /** @throws RangeError where there are more than was said */
  #note(at: number, value: number): number {
    if (this.#size === this.#values.length) {
      if (this.#size >= this.most) throw new RangeError(`More than ${this.most} distinct numbers.`);
      this.#grow();
      return this.placeOf(value);
    }
    this.#values[this.#size] = value;
    this.#slots[at] = ++this.#size;
    return this.#size - 1;
  }

  #grow(): void {
    const values = new Float64Array(Math.min(this.most, this.#size * GROWTH));
    values.set(this.#values);
    this.#values = values;
    this.#slots = tableFor(values.length);
    this.#mask = this.#slots.length - 1;
    for (let place = 0; place < this.#size; place++) {
      let at = mixed(values[place]) & this.#mask;
      while (this.#slots[at] !== 0) at = (at + 1) & this.#mask;
      this.#slots[at] = place + 1;
    }
  }
}

/** Half of a table stays free, so that a number is found within a step or two. Places stand one higher. */
const tableFor = (numbers: number): Int32Array =>
  new Int32Array(2 ** Math.ceil(Math.log2(2 * Math.max(1, numbers))));
