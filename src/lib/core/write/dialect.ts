import { z } from 'zod';
import { WriteRefused } from '../errors';
import { WINDOWS_1252 } from '../table/windows1252';

/** What parts the fields of delimited text. */
export const DELIMITERS = ['comma', 'semicolon', 'tab', 'bar'] as const;
export const DECIMAL_MARKS = ['point', 'comma'] as const;
/** UTF-8 with its mark (EF BB BF) is known for it by programs that would guess otherwise. */
export const OUT_ENCODINGS = ['utf-8', 'utf-8-marked', 'utf-16le', 'windows-1252'] as const;

/** How values are written: with every digit and no marks, or as people read them. */
export const VALUES = ['full', 'shown'] as const;
export type Values = (typeof VALUES)[number];

/** How delimited text is written. */
export const Dialect = z.strictObject({
  values: z.enum(VALUES).default('full'),
  delimiter: z.enum(DELIMITERS).default('comma'),
  decimal: z.enum(DECIMAL_MARKS).default('point'),
  encoding: z.enum(OUT_ENCODINGS).default('utf-8'),
});
export type Dialect = z.infer<typeof Dialect>;
export type OutEncoding = Dialect['encoding'];

/** What can be chosen, by part: for options, queries and their words. */
export const DIALECT_CHOICES = {
  values: VALUES,
  delimiter: DELIMITERS,
  decimal: DECIMAL_MARKS,
  encoding: OUT_ENCODINGS,
} as const satisfies Record<keyof Dialect, readonly string[]>;
export const DIALECT_PARTS = [
  'values',
  'delimiter',
  'decimal',
  'encoding',
] as const satisfies readonly (keyof Dialect)[];

/** As RFC 4180 has it, in UTF-8. */
export const USUAL_DIALECT: Dialect = Dialect.parse({});

export const DELIMITER_SIGN: Readonly<Record<Dialect['delimiter'], string>> = {
  comma: ',',
  semicolon: ';',
  tab: '\t',
  bar: '|',
};

/** The name by which a receiver knows an encoding (IANA). */
export const charsetOf = (encoding: OutEncoding): string =>
  encoding === 'utf-8-marked' ? 'utf-8' : encoding;

/**
 * A number as text with another decimal mark: where that is the comma, thousands get the point.
 * @example withDecimal('1,234.50', 'comma') // '1.234,50'
 */
export const withDecimal = (text: string, decimal: Dialect['decimal']): string =>
  decimal === 'point' ? text : text.replace(/[.,]/g, (mark) => (mark === '.' ? ',' : '.'));

/**
 * A text in an encoding. Nothing is replaced: a character that it does not have is named.
 * @throws WriteRefused
 */
export function encoded(text: string, encoding: OutEncoding): Uint8Array {
  switch (encoding) {
    case 'utf-8':
      return new TextEncoder().encode(text);
    case 'utf-8-marked':
      return new TextEncoder().encode(`\ufeff${text}`);
    case 'utf-16le': {
      const out = new Uint8Array(2 * text.length + 2);
      out.set([0xff, 0xfe]);
      for (let k = 0; k < text.length; k++) {
        const unit = text.charCodeAt(k);
        out[2 * k + 2] = unit & 0xff;
        out[2 * k + 3] = unit >>> 8;
      }
      return out;
    }
    case 'windows-1252':
      return inWindows1252(text);
  }
}

function inWindows1252(text: string): Uint8Array {
  const bytes = new Map<string, number>();
  for (let b = 0; b < 256; b++)
    bytes.set(b < 0x80 || b > 0x9f ? String.fromCharCode(b) : WINDOWS_1252[b - 0x80], b);
  const out = new Uint8Array(text.length);
  for (let k = 0; k < text.length; k++) {
    const byte = bytes.get(text[k]);
    if (byte === undefined) {
      const line = text.slice(0, k).split('\n').length;
      const character = String.fromCodePoint(text.codePointAt(k) ?? 0);
      throw new WriteRefused(
        `Line ${line} holds “${character}”, which Windows-1252 cannot hold. Nothing was written: choose UTF-8 or UTF-16.`,
      );
    }
    out[k] = byte;
  }
  return out;
}
