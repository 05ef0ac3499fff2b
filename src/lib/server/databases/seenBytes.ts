/** Texts of more bytes are not kept. */
const LONGEST = 48;
/** Places for texts that were seen; where two fall on one, the later one takes it. */
const PLACES = 1 << 12;

/**
 * The bytes of short texts that were seen, each with its code: a cache beside a dictionary, which holds all
 * of them. Its places are found by the hash of Fowler, Noll and Vo (FNV-1a).
 *
 * @example
 * seen.keep(7, bytes, 10, 14);
 * seen.codeOf(bytes, 10, 14); // 7
 */
export class SeenBytes {
  readonly #codes = new Int32Array(PLACES).fill(-1);
  readonly #lengths = new Uint8Array(PLACES);
  readonly #bytes = new Uint8Array(PLACES * LONGEST);
  /** The place that was looked at last. */
  #place = 0;

  /** The code of a text that was kept; −1 for another. */
  codeOf(bytes: Uint8Array, from: number, to: number): number {
    const length = to - from;
    if (length > LONGEST) return -1;
    let hash = 0x811c9dc5;
    for (let k = from; k < to; k++) hash = Math.imul(hash ^ bytes[k], 0x01000193);
    const place = (hash ^ (hash >>> 13)) & (PLACES - 1);
    this.#place = place;
    if (this.#lengths[place] !== length) return -1;
    const own = this.#bytes;
    for (let k = 0, at = place * LONGEST; k < length; k++)
      if (own[at + k] !== bytes[from + k]) return -1;
    return this.#codes[place];
  }

  /** Keeps the text that was looked for last. @param code below 0: none, and nothing is kept */
  keep(code: number, bytes: Uint8Array, from: number, to: number): void {
    const length = to - from;
    if (length > LONGEST || code < 0) return;
    this.#codes[this.#place] = code;
    this.#lengths[this.#place] = length;
    this.#bytes.set(bytes.subarray(from, to), this.#place * LONGEST);
  }

  forget(): void {
    this.#codes.fill(-1);
  }
}
