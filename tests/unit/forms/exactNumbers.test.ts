import {
  Decimal,
  Field,
  makeData,
  RecordBatch,
  Schema,
  Struct,
  Table,
  tableToIPC,
  TimestampMillisecond,
  vectorFromArray,
} from 'apache-arrow';
import fc from 'fast-check';
import { parquetWriteBuffer } from 'hyparquet-writer';
import { describe, expect, it } from 'vitest';
import { arrowTable } from '$lib/core/read/decode/arrowFile';
import { decimalText, signedOfBytes, signedOfWords } from '$lib/core/read/decode/exactDecimal';
import { parquetTable } from '$lib/core/read/decode/parquet';
import { fullCell } from '$lib/core/table/cell';
import { isText, type Column } from '$lib/core/table/column';

const LIMIT = 1e8;
/** Cells with what is unread marked. */
const cells = (column: Column, length: number): string[] =>
  Array.from({ length }, (_, n) =>
    !isText(column) && column.unread.has(n) ? `?${column.unread.get(n)}` : fullCell(column, n),
  );

describe('decimals', () => {
  it('are written exactly, however many digits', () => {
    expect(decimalText(-12345n, 2)).toBe('-123.45');
    expect(decimalText(5n, 3)).toBe('0.005');
    expect(decimalText(7n, -2)).toBe('700');
    fc.assert(
      fc.property(fc.bigInt({ min: -(2n ** 127n), max: 2n ** 127n - 1n }), (value) => {
        const bits = BigInt.asUintN(128, value);
        const bytes = Uint8Array.from({ length: 16 }, (_, k) =>
          Number((bits >> BigInt(8 * (15 - k))) & 255n),
        );
        const words = Uint32Array.from({ length: 4 }, (_, k) =>
          Number((bits >> BigInt(32 * k)) & 0xffffffffn),
        );
        expect([signedOfBytes(bytes), signedOfWords(words)]).toEqual([value, value]);
      }),
    );
  });

  it('of Parquet by their logical type alone; what no double holds is unread with its digits', async () => {
    const wide = (value: bigint): Uint8Array =>
      Uint8Array.from({ length: 16 }, (_, k) =>
        Number((BigInt.asUintN(128, value) >> BigInt(8 * (15 - k))) & 255n),
      );
    const bytes = parquetWriteBuffer({
      schema: [
        { name: 'root', num_children: 4 },
        {
          name: 'Fare',
          type: 'INT32',
          repetition_type: 'OPTIONAL',
          logical_type: { type: 'DECIMAL', precision: 9, scale: 2 },
        },
        {
          name: 'Meter',
          type: 'FIXED_LEN_BYTE_ARRAY',
          type_length: 16,
          repetition_type: 'REQUIRED',
          logical_type: { type: 'DECIMAL', precision: 38, scale: 4 },
        },
        { name: 'Share', type: 'DOUBLE', repetition_type: 'OPTIONAL' },
        {
          name: 'Left',
          type: 'INT64',
          repetition_type: 'REQUIRED',
          logical_type: { type: 'TIMESTAMP', isAdjustedToUTC: true, unit: 'MILLIS' },
        },
      ],
      columnData: [
        { name: 'Fare', data: [12345, null, -1] },
        {
          name: 'Meter',
          data: [wide(-15000n), wide(12345678901234567890123456789012345678n), wide(0n)],
        },
        { name: 'Share', data: [NaN, Infinity, null] },
        { name: 'Left', data: [1706740200000n, 0n, 1n] },
      ],
    });
    const { columns, length } = await parquetTable(new Uint8Array(bytes), LIMIT);
    expect(
      columns.map((column) => [column.name, column.type, column.unit, ...cells(column, length)]),
    ).toEqual([
      ['Fare', 'number', '', '123.45', '', '-0.01'],
      ['Meter', 'number', '', '-1.5', '?1234567890123456789012345678901234.5678', '0'],
      ['Share', 'number', '', '?NaN', '?Infinity', ''],
      // 31 January, 22:30: the moment is told in UTC, and says so.
      [
        'Left',
        'datetime',
        'UTC',
        '2024-01-31T22:30',
        '1970-01-01T00:00',
        '1970-01-01T00:00:00.001',
      ],
    ]);
  });

  it('of Arrow likewise', () => {
    const type = new Decimal(2, 20, 128);
    const words = new Uint32Array([12345, 0, 0, 0, 0xffffffff, 0xffffffff, 0xffffffff, 0xffffffff]);
    const data = makeData({ type, length: 2, nullCount: 0, data: words });
    const field = new Field('Fare', type, true);
    const struct = makeData({
      type: new Struct([field]),
      length: 2,
      nullCount: 0,
      children: [data],
    });
    const schema = new Schema([field]);
    const fares = new Table(schema, new RecordBatch(schema, struct));
    const decimals = arrowTable(tableToIPC(fares, 'file'), LIMIT).columns[0];
    expect([decimals.type, ...cells(decimals, 2)]).toEqual(['number', '123.45', '-0.01']);
    const others = new Table({
      n: vectorFromArray([1.5, NaN, -Infinity]),
      at: vectorFromArray(
        [new Date(1706740200000), new Date(0), null],
        new TimestampMillisecond('Europe/Oslo'),
      ),
    });
    const { columns } = arrowTable(tableToIPC(others, 'stream'), LIMIT);
    expect(cells(columns[0], 3)).toEqual(['1.5', '?NaN', '?-Infinity']);
    expect([columns[1].unit, ...cells(columns[1], 3)]).toEqual([
      'UTC',
      '2024-01-31T22:30',
      '1970-01-01T00:00',
      '',
    ]);
  });
});
