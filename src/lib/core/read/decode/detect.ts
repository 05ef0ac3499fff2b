import { IntakeError } from '../../errors';
import { detectEncoding, HEAD_BYTES, TextStream } from '../textDecoding';
import { cutsOf } from './fixedWidth';
import type { DatabaseForm, FileForm } from './source';

/** What the first bytes of a file say it is; a package says what is in it only when it is opened. */
export type Found = Exclude<FileForm, DatabaseForm> | 'gzip' | 'zip';

const begins = (bytes: Uint8Array, ...mark: readonly number[]): boolean =>
  mark.every((byte, k) => bytes[k] === byte);
const ascii = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));

const ARROW_FILE = ascii('ARROW1');
const PARQUET = ascii('PAR1');
const SQLITE = ascii('SQLite format 3');
/** The container of office files before their open formats. */
const OLD_WORKBOOK = [0xd0, 0xcf, 0x11, 0xe0];

/**
 * What a file is, by its first bytes and never by its name.
 * @throws IntakeError for what is known and cannot be read
 */
export function detectForm(head: Uint8Array): Found {
  if (begins(head, 0x1f, 0x8b)) return 'gzip';
  if (begins(head, 0x50, 0x4b, 0x03, 0x04)) return 'zip';
  if (begins(head, ...ARROW_FILE)) return 'arrow';
  // A stream begins with its schema, whose length is no text.
  if (begins(head, 0xff, 0xff, 0xff, 0xff) && head[7] === 0) return 'arrow';
  if (begins(head, ...PARQUET)) return 'parquet';
  if (begins(head, ...OLD_WORKBOOK))
    throw new IntakeError(
      'form',
      'This is a workbook in an old binary form. Save it as .xlsx or .ods and bring that in.',
    );
  if (begins(head, ...SQLITE))
    throw new IntakeError(
      'form',
      'This is a SQLite database. Keep it on the server under a name (docs/databases.md) to read its tables here; the command line reads the file itself (--data FILE --table NAME).',
    );
  if (looksLikeJson(head)) return 'json';
  return cutsOf(firstLines(head)).length ? 'fixed' : 'delimited';
}

/** Bytes whose lines tell whether they stand in columns. */
const LOOKED_AT = 1 << 16;

function firstLines(head: Uint8Array): string[] {
  const bytes = head.subarray(0, LOOKED_AT);
  try {
    const lines = new TextStream(detectEncoding(bytes)).push(bytes, false).split(/\r?\n/);
    // The last may be cut off.
    return bytes.length < head.length ? lines.slice(0, -1) : lines;
  } catch (error) {
    if (error instanceof IntakeError) return [];
    throw error;
  }
}

/** Text that begins with an object, or with an array of objects or of plain values. */
function looksLikeJson(head: Uint8Array): boolean {
  const text = textOf(head.subarray(0, 4096)).replace(/^\ufeff/, '');
  if (/^\s*(\[\s*)*\{\s*("|\})/.test(text) || /^\s*\[\s*\]\s*$/.test(text)) return true;
  // Delimited text may begin with a bracket as well: all of it must be JSON, or a long run of its values.
  if (!/^\s*\[\s*(-?\d|"|true|false|null)/.test(text)) return false;
  return head.length < HEAD_BYTES ? isJson(head) : VALUES.test(text);
}

/** An array of plain values, of which only the beginning is at hand. */
const VALUES = /^\s*\[\s*((-?\d[\d.eE+-]*|"[^"\\]*(\\.[^"\\]*)*"|true|false|null)\s*,\s*){8}/;

function isJson(bytes: Uint8Array): boolean {
  try {
    return Array.isArray(JSON.parse(textOf(bytes)));
  } catch {
    return false;
  }
}

function textOf(bytes: Uint8Array): string {
  try {
    return new TextStream(detectEncoding(bytes)).push(bytes, true);
  } catch (error) {
    if (error instanceof IntakeError) return '';
    throw error;
  }
}
