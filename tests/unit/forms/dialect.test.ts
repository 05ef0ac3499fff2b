import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WriteRefused } from '$lib/core/errors';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import { DelimitedReader } from '$lib/core/read/delimited';
import { OpenedFile } from '$lib/core/read/opened';
import { fullCell } from '$lib/core/table/cell';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import {
  DECIMAL_MARKS,
  DELIMITERS,
  Dialect,
  encoded,
  OUT_ENCODINGS,
  withDecimal,
} from '$lib/core/write/dialect';
import { tableFile } from '$lib/core/write/tableFile';

const table: Table = {
  length: 3,
  columns: [
    textColumn('Route', ['Holm; "fast"', 'Ness\tSkerry', 'a|b, c']),
    scalarColumn('Fares', 'number', [1234.5, -0.25, null], { decimals: 2 }),
    scalarColumn('Day', 'date', [19753, 19754, 19755]),
  ],
};
const written = async (dialect: Partial<Dialect>): Promise<Uint8Array> =>
  (await tableFile({ name: 'Made', table, notes: [] }, 'csv', Dialect.parse(dialect))).bytes;

describe('delimited text as it is asked for', () => {
  it('semicolons with the comma for decimals, byte for byte', async () => {
    const bytes = await written({ delimiter: 'semicolon', decimal: 'comma' });
    expect(new TextDecoder().decode(bytes)).toBe(
      'Route;Fares;Day\r\n"Holm; ""fast""";1234,5;2024-01-31\r\nNess\tSkerry;-0,25;2024-02-01\r\na|b, c;;2024-02-02\r\n',
    );
  });

  it.each(
    DELIMITERS.flatMap((delimiter) =>
      DECIMAL_MARKS.flatMap((decimal) =>
        OUT_ENCODINGS.map((encoding) => ({ delimiter, decimal, encoding })),
      ),
    ),
  )('%o is read again as the same records, cell by cell', async (dialect) => {
    const bytes = await written(dialect);
    const opened = OpenedFile.delimited(bytes.subarray(0, HEAD_BYTES), true);
    const reader = new DelimitedReader(opened.propose());
    reader.push(bytes, true);
    const { columns } = reader.finish().table;
    expect(columns.map((column) => [0, 1, 2].map((i) => fullCell(column, i)))).toEqual(
      table.columns.map((column) => [0, 1, 2].map((i) => fullCell(column, i))),
    );
  });

  it('a mark of thousands gives way to the decimal mark', () => {
    expect(withDecimal('£1,234,567.50', 'comma')).toBe('£1.234.567,50');
    expect(withDecimal('1,234.50', 'point')).toBe('1,234.50');
  });
});

describe('encodings', () => {
  it('Windows-1252 names the first character that it does not have, and writes nothing', () => {
    expect([...encoded('5 € für', 'windows-1252')]).toEqual([53, 32, 0x80, 32, 102, 0xfc, 114]);
    expect(() => encoded('a\r\nb 渡し\r\n', 'windows-1252')).toThrow(WriteRefused);
    expect(() => encoded('a\r\nb 渡し\r\n', 'windows-1252')).toThrow(/Line 2 holds “渡”/);
    expect(() => encoded('🚢', 'windows-1252')).toThrow(/“🚢”/);
  });

  it('any text is the same when decoded, with its mark where it has one', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        fc.pre(!text.startsWith('\ufeff') && text.isWellFormed());
        for (const encoding of ['utf-8', 'utf-8-marked', 'utf-16le'] as const) {
          const bytes = encoded(text, encoding);
          const label = encoding === 'utf-8-marked' ? 'utf-8' : encoding;
          expect(new TextDecoder(label).decode(bytes)).toBe(text);
          const mark = encoding === 'utf-16le' ? [0xff, 0xfe] : [0xef, 0xbb, 0xbf];
          expect(mark.every((byte, k) => bytes[k] === byte)).toBe(encoding !== 'utf-8');
        }
      }),
    );
  });
});
