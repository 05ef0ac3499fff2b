import type { ColumnMetaData, FileMetaData } from 'hyparquet';
import { compressors } from 'hyparquet-compressors';
import {
  getMaxDefinitionLevel,
  getMaxRepetitionLevel,
  getSchemaPath,
} from 'hyparquet/src/schema.js';
import { deserializeTCompactProtocol, readVarInt } from 'hyparquet/src/thrift.js';

interface Reader {
  readonly view: DataView;
  offset: number;
}

/** Kinds of page, and encodings of values that are runs, by their numbers in the format's `parquet.thrift`. */
const DATA = 0;
const DICTIONARY = 2;
const DATA_V2 = 3;
const PLAIN_DICTIONARY = 2;
const RLE = 3;
const RLE_DICTIONARY = 8;
/** Packed values stand in groups of so many; the last is filled up. */
const GROUP = 8;

const readerOf = (bytes: Uint8Array): Reader => ({
  view: new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength),
  offset: 0,
});

const whole = (value: unknown, what: string): number => {
  if (typeof value !== 'number' || !Number.isSafeInteger(value) || value < 0)
    throw new RangeError(`${what} is none`);
  return value;
};
const fieldsOf = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null ? { ...value } : {};

/**
 * Goes through the pages of a file and the lengths of their runs ("RLE/Bit-Packing Hybrid" of the Parquet format)
 * before anything is made of them: the library writes a run as long as it says it is, and would be at it
 * for minutes where that is damaged.
 * @throws RangeError where a page or a run is longer than its column
 */
export function checkRuns(file: Uint8Array, { row_groups, schema }: FileMetaData): void {
  for (const { columns } of row_groups)
    for (const { meta_data: about } of columns) {
      if (!about) continue;
      const path = getSchemaPath(schema, about.path_in_schema);
      const levels = { def: getMaxDefinitionLevel(path), rep: getMaxRepetitionLevel(path) };
      checkColumn(file, about, levels);
    }
}

interface Levels {
  readonly def: number;
  readonly rep: number;
}

function checkColumn(file: Uint8Array, about: ColumnMetaData, levels: Levels): void {
  const from = Number(about.dictionary_page_offset ?? about.data_page_offset);
  const most = Number(about.num_values);
  const bytes = file.subarray(from, from + Number(about.total_compressed_size));
  const reader = readerOf(bytes);
  while (reader.offset < bytes.length - 1) {
    const header: Record<string, unknown> = deserializeTCompactProtocol(reader);
    const size = whole(header.field_2, 'the size of a page');
    const packed = whole(header.field_3, 'the size of a page');
    const body = bytes.subarray(reader.offset, reader.offset + packed);
    if (body.length < packed) throw new RangeError('a page lies outside');
    reader.offset += packed;
    if (header.field_1 === DATA) {
      const { field_1: n, field_2: encoding } = fieldsOf(header.field_5);
      const page = readerOf(unpacked(body, size, about.codec));
      const values = atMost(n, most);
      for (const level of [levels.rep, levels.def])
        if (level > 0) sizedRuns(page, widthOf(level), values);
      checkValues(page, encoding, values);
    } else if (header.field_1 === DATA_V2) {
      const about2 = fieldsOf(header.field_8);
      const values = atMost(about2.field_1, most);
      const def = whole(about2.field_5, 'the size of levels');
      const rep = whole(about2.field_6, 'the size of levels');
      if (rep + def > body.length) throw new RangeError('levels lie outside');
      const page = readerOf(body);
      if (levels.rep > 0) runs(page, widthOf(levels.rep), values, rep);
      page.offset = rep;
      if (levels.def > 0) runs(page, widthOf(levels.def), values, rep + def);
      const rest = body.subarray(rep + def);
      const left = size - rep - def;
      const isPacked = about2.field_7 !== false && left > 0;
      checkValues(
        readerOf(isPacked ? unpacked(rest, left, about.codec) : rest),
        about2.field_4,
        values,
      );
    } else if (header.field_1 === DICTIONARY) {
      // A value of a dictionary takes a bit at least.
      const { field_1: n } = fieldsOf(header.field_7);
      atMost(n, size * GROUP);
    }
  }
}

/** How many values a page says it has. */
function atMost(n: unknown, most: number): number {
  const values = whole(n, 'the number of values of a page');
  if (values > most) throw new RangeError('a page has more values than its column');
  return values;
}

function unpacked(bytes: Uint8Array, size: number, codec: ColumnMetaData['codec']): Uint8Array {
  if (codec === 'UNCOMPRESSED') return bytes;
  const unpack = compressors[codec];
  if (!unpack) throw new RangeError(`it is packed as ${codec}`);
  return unpack(bytes, size);
}

const widthOf = (level: number): number => 32 - Math.clz32(level);

function checkValues(page: Reader, encoding: unknown, values: number): void {
  const { view } = page;
  if (encoding === RLE) sizedRuns(page, 1, values);
  else if ((encoding === PLAIN_DICTIONARY || encoding === RLE_DICTIONARY) && values > 0) {
    if (page.offset >= view.byteLength) return;
    const width = view.getUint8(page.offset++);
    if (width > 32) throw new RangeError('places of a dictionary are too wide');
    runs(page, width, values, view.byteLength);
  }
}

/** Runs behind the number of their bytes. */
function sizedRuns(page: Reader, width: number, values: number): void {
  const size = page.view.getUint32(page.offset, true);
  const from = page.offset + 4;
  page.offset = from;
  runs(page, width, values, Math.min(page.view.byteLength, from + size));
  page.offset = from + size;
}

/** @param values as many as there may be: blanks have none */
function runs(page: Reader, width: number, values: number, end: number): void {
  let seen = 0;
  while (seen < values && page.offset < end) {
    const header = readVarInt(page);
    const isPacked = (header & 1) === 1;
    const count = (header >>> 1) * (isPacked ? GROUP : 1);
    if (count > values - seen + (isPacked ? GROUP - 1 : 0))
      throw new RangeError('a run is longer than its column');
    seen += count;
    page.offset += isPacked ? (count * width) / 8 : (width + 7) >> 3;
  }
}
