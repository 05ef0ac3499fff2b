import { noNumberFacts, numberReader } from '../numbers';

/**
 * A stored decimal as it is written: its whole number, so many places shifted.
 * @example decimalText(-12345n, 2) // '-123.45'
 */
export function decimalText(unscaled: bigint, scale: number): string {
  if (scale <= 0) return String(unscaled * 10n ** BigInt(-scale));
  const digits = String(unscaled < 0n ? -unscaled : unscaled).padStart(scale + 1, '0');
  const at = digits.length - scale;
  return `${unscaled < 0n ? '-' : ''}${digits.slice(0, at)}.${digits.slice(at)}`;
}

/** The whole number of bytes in two's complement, the first the most significant. */
export function signedOfBytes(bytes: Uint8Array): bigint {
  let value = 0n;
  for (const byte of bytes) value = (value << 8n) | BigInt(byte);
  return bytes.length && bytes[0] > 127 ? value - (1n << BigInt(8 * bytes.length)) : value;
}

/** The whole number of 32-bit words in two's complement, the first the least significant. */
export function signedOfWords(words: Uint32Array): bigint {
  let value = 0n;
  for (let k = words.length - 1; k >= 0; k--) value = (value << 32n) | BigInt(words[k]);
  const bits = BigInt(32 * words.length);
  return words.length && words[words.length - 1] >> 31 ? value - (1n << bits) : value;
}

const read = numberReader({ thousands: '', decimal: '.', unit: '' }, noNumberFacts());

/** Values of a column, and what of them no double holds, by its record. */
export interface ExactValues {
  readonly values: Float64Array;
  readonly unread: Map<number, string>;
}

/**
 * Numbers of texts that keep all of their digits or are unread, as `NaN` and infinity are.
 * @param at the text of a record; null: none
 */
export function exactValues(length: number, at: (i: number) => string | null): ExactValues {
  const values = new Float64Array(length).fill(NaN);
  const unread = new Map<number, string>();
  for (let i = 0; i < length; i++) {
    const text = at(i);
    if (text === null) continue;
    values[i] = read(text);
    if (Number.isNaN(values[i])) unread.set(i, text);
  }
  return { values, unread };
}
