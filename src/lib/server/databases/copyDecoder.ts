import { isTooLong } from '$lib/core/read/numbers';
import type { Cells, PartBuilder } from './partBuilder';

/** How the binary form of a type of PostgreSQL becomes a cell. @param at where its bytes begin */
export type Decode = (bytes: Buffer, at: number, length: number, into: Cells) => void;

// Read by hand: a method of Buffer looks at its arguments each time, which costs as much again.
const int16At = (bytes: Buffer, at: number): number => ((bytes[at] << 24) >> 16) | bytes[at + 1];
const int32At = (bytes: Buffer, at: number): number =>
  (bytes[at] << 24) | (bytes[at + 1] << 16) | (bytes[at + 2] << 8) | bytes[at + 3];
const uint16At = (bytes: Buffer, at: number): number => (bytes[at] << 8) | bytes[at + 1];
const uint32At = (bytes: Buffer, at: number): number => int32At(bytes, at) >>> 0;

/** PGCOPY, and four bytes that say whether a way has changed them. */
const SIGNATURE = Buffer.from('PGCOPY\n\xff\r\n\0', 'latin1');
const HEADER = SIGNATURE.length + 8;
const NOTHING = Buffer.alloc(0);

/**
 * Takes apart the binary form of COPY (PostgreSQL, COPY, “Binary Format”), whose pieces may end anywhere:
 * a header; for each record the number of its fields, and for each field its length (−1: nothing) and
 * bytes; −1 at the end.
 */
export class CopyDecoder {
  #left: Buffer = NOTHING;
  #begun = false;

  /** @param fields by their place; those behind the last are passed over */
  constructor(
    readonly fields: readonly Decode[],
    readonly into: PartBuilder,
  ) {}

  /** Takes records in until there are `most`, or the piece ends. @returns whether there are */
  push(piece: Buffer, most: number): boolean {
    const bytes = this.#left.length ? Buffer.concat([this.#left, piece]) : piece;
    let at = 0;
    if (!this.#begun) {
      if (bytes.length < HEADER) return this.#keep(bytes, 0);
      if (!bytes.subarray(0, SIGNATURE.length).equals(SIGNATURE))
        throw new Error('what came is not in the form that was asked for');
      const more = uint32At(bytes, HEADER - 4);
      if (bytes.length < HEADER + more) return this.#keep(bytes, 0);
      at = HEADER + more;
      this.#begun = true;
    }
    const { into } = this;
    while (into.length < most) {
      const end = recordEnd(bytes, at);
      if (end < 0) return this.#keep(bytes, at);
      this.#take(bytes, at + 2);
      into.length++;
      at = end;
    }
    this.#keep(bytes, at);
    return true;
  }

  #keep(bytes: Buffer, from: number): false {
    this.#left = bytes.subarray(from);
    return false;
  }

  #take(bytes: Buffer, from: number): void {
    const { fields, into } = this;
    let at = from;
    for (let k = 0; k < fields.length; k++) {
      const length = int32At(bytes, at);
      at += 4;
      if (length < 0) into.cells[k].blank();
      else {
        fields[k](bytes, at, length, into.cells[k]);
        at += length;
      }
    }
  }
}

/** Where the record that begins at a place ends; −1 where it is not all there, and for the end of all. */
function recordEnd(bytes: Buffer, from: number): number {
  if (from + 2 > bytes.length) return -1;
  const fields = int16At(bytes, from);
  if (fields < 0) return -1;
  let at = from + 2;
  for (let k = 0; k < fields; k++) {
    if (at + 4 > bytes.length) return -1;
    const length = int32At(bytes, at);
    at += 4 + (length < 0 ? 0 : length);
  }
  return at > bytes.length ? -1 : at;
}

export const text: Decode = (bytes, at, length, into) => into.utf8(bytes, at, at + length);

export const yesNo: Decode = (bytes, at, _, into) => into.value(bytes[at]);
export const int2: Decode = (bytes, at, _, into) => into.value(int16At(bytes, at));
export const int4: Decode = (bytes, at, _, into) => into.value(int32At(bytes, at));
export const oid: Decode = (bytes, at, _, into) => into.value(uint32At(bytes, at));

const WORD = 2 ** 32;
/** Halves of whole numbers that a double holds, all of them. */
const SAFE = 2 ** 20;

/** Beyond 2^53: its digits. */
export const int8: Decode = (bytes, at, _, into) => {
  const high = int32At(bytes, at);
  if (high >= -SAFE && high < SAFE) into.value(high * WORD + uint32At(bytes, at + 4));
  else into.text(String(bytes.readBigInt64BE(at)));
};

const finite = (value: number, into: Cells): void =>
  Number.isFinite(value) ? into.value(value) : into.text(String(value));

/** A number of single precision is the shortest decimal that stands for it. */
export const float4: Decode = (bytes, at, _, into) => {
  const value = bytes.readFloatBE(at);
  const short = Number(value.toPrecision(7));
  finite(Math.fround(short) === value ? short : value, into);
};

export const float8: Decode = (bytes, at, _, into) => finite(bytes.readDoubleBE(at), into);

/** 2000-01-01 as days since 1970-01-01. */
const EPOCH = 10_957;
const EPOCH_MS = EPOCH * 86_400_000;

export const date: Decode = (bytes, at, _, into) => {
  const days = int32At(bytes, at);
  if (days === 0x7fffffff) into.text('infinity');
  else if (days === -0x80000000) into.text('-infinity');
  else into.value(days + EPOCH);
};

const microseconds = (bytes: Buffer, at: number): number =>
  int32At(bytes, at) * WORD + uint32At(bytes, at + 4);

/** To the nearest millisecond, which a list holds. 24:00, the end of a day, is no time of ours. */
export const time: Decode = (bytes, at, _, into) =>
  into.value(Math.round(microseconds(bytes, at) / 1000));

export const timestamp: Decode = (bytes, at, _, into) => {
  const high = int32At(bytes, at);
  if (high === 0x7fffffff && uint32At(bytes, at + 4) === WORD - 1) into.text('infinity');
  else if (high === -0x80000000 && uint32At(bytes, at + 4) === 0) into.text('-infinity');
  else into.value(Math.round(microseconds(bytes, at) / 1000) + EPOCH_MS);
};

const NEGATIVE = 0x4000;
/** A number of 15 digits: every one of them a double gives back. */
const MOST_WHOLE = 1e15;
const SPECIAL: Readonly<Record<number, string>> = {
  0xc000: 'NaN',
  0xd000: 'Infinity',
  0xf000: '-Infinity',
};
const TENS = Array.from({ length: 23 }, (_, k) => 10 ** k);

/**
 * Digits in base 10,000. Where they make a whole number that a double holds, its quotient by a power of ten
 * that a double holds too is rounded once (Clinger, How to read floating point numbers accurately, 1990);
 * else they are read as text, which is kept where a double would lose some.
 */
export const numeric: Decode = (bytes, at, _, into) => {
  const count = int16At(bytes, at);
  const weight = int16At(bytes, at + 2);
  const sign = uint16At(bytes, at + 4);
  if (sign in SPECIAL) return into.text(SPECIAL[sign]);
  let whole = 0;
  for (let k = 0; k < count; k++) whole = whole * 10_000 + uint16At(bytes, at + 8 + 2 * k);
  const power = 4 * (weight - count + 1);
  if (whole <= MOST_WHOLE && power >= -22 && power <= 22) {
    const size = power < 0 ? whole / TENS[-power] : whole * TENS[power];
    if (size <= MOST_WHOLE) return into.value(sign === NEGATIVE ? -size : size);
  }
  const digits = numericText(bytes, at, count, weight, sign);
  if (isTooLong(digits)) into.text(digits);
  else into.value(Number(digits));
};

/** As PostgreSQL writes it: all decimals of its scale. */
function numericText(
  bytes: Buffer,
  at: number,
  count: number,
  weight: number,
  sign: number,
): string {
  const scale = uint16At(bytes, at + 6);
  const group = (k: number): string =>
    String(k >= 0 && k < count ? uint16At(bytes, at + 8 + 2 * k) : 0).padStart(4, '0');
  let whole = '';
  for (let k = 0; k <= weight; k++) whole += group(k);
  let decimals = '';
  for (let k = weight + 1; decimals.length < scale; k++) decimals += group(k);
  return `${sign === NEGATIVE ? '-' : ''}${whole.replace(/^0+(?=.)/, '') || '0'}${scale ? `.${decimals.slice(0, scale)}` : ''}`;
}
