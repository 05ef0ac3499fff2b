import { IntakeError } from '../errors';
import { WINDOWS_1252 } from '../table/windows1252';
import type { Encoding } from './recipe';

/** First bytes of files that are not text, with what they are called. */
const SIGNATURES: readonly (readonly [name: string, bytes: readonly number[]])[] = [
  ['a ZIP archive (many workbooks are one inside)', [0x50, 0x4b, 0x03, 0x04]],
  ['a PNG picture', [0x89, 0x50, 0x4e, 0x47]],
  ['a JPEG picture', [0xff, 0xd8, 0xff]],
  ['a PDF document', [0x25, 0x50, 0x44, 0x46, 0x2d]],
  ['a gzip archive', [0x1f, 0x8b]],
  ['an SQLite database', [0x53, 0x51, 0x4c, 0x69, 0x74, 0x65, 0x20, 0x66]],
  ['a program', [0x7f, 0x45, 0x4c, 0x46]],
];

/** How much of a file decides its encoding and layout. */
export const HEAD_BYTES = 1 << 18;

/**
 * The encoding of a file from its first bytes: a byte order mark; else NULs on every other byte
 * (UTF-16 without mark); else UTF-8 where the bytes are valid UTF-8; else Windows-1252.
 * @throws IntakeError when the bytes are not text
 */
export function detectEncoding(head: Uint8Array): Encoding {
  if (head.length === 0)
    throw new IntakeError('empty', 'The file is empty: it holds no bytes at all.');
  for (const [name, bytes] of SIGNATURES)
    if (bytes.every((b, i) => head[i] === b))
      throw new IntakeError(
        'binary',
        `This is not a text file: it begins like ${name}. Save it as delimited text (CSV) and bring that in.`,
      );
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le';
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be';
  if (head[0] === 0xef && head[1] === 0xbb && head[2] === 0xbf) return 'utf-8';

  const nuls = [0, 0];
  let controls = 0;
  for (let i = 0; i < head.length; i++) {
    const b = head[i];
    if (b === 0) nuls[i & 1]++;
    else if (b < 32 && b !== 9 && b !== 10 && b !== 13 && b !== 12) controls++;
  }
  const half = head.length / 2;
  if (nuls[1] > half * 0.4 && nuls[0] < half * 0.05) return 'utf-16le';
  if (nuls[0] > half * 0.4 && nuls[1] < half * 0.05) return 'utf-16be';
  if (nuls[0] + nuls[1] + controls > head.length * 0.05)
    throw new IntakeError(
      'binary',
      'This is not a text file: it is full of control characters. Save it as delimited text (CSV) and bring that in.',
    );
  return isUtf8(head) ? 'utf-8' : 'windows-1252';
}

/** Valid UTF-8, where a character cut off at the end of the sample is no fault. */
function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true });
    return true;
  } catch {
    return false;
  }
}

/** Some engines read Windows-1252 as Latin-1, in which these bytes are controls. */
const mended = (text: string): string =>
  text.replace(/[\x80-\x9f]/g, (c) => WINDOWS_1252[c.charCodeAt(0) - 0x80]);

/** Bytes to text, chunk by chunk; leaves out a byte order mark and turns CR and CRLF into LF. */
export class TextStream {
  readonly #decoder: TextDecoder;
  #heldReturn = false;
  /** Characters that no byte sequence of the encoding gives. */
  undecoded = 0;
  nuls = 0;
  lineEnds = { lf: 0, crlf: 0, cr: 0 };

  constructor(readonly encoding: Encoding) {
    this.#decoder = new TextDecoder(encoding);
  }

  push(bytes: Uint8Array, last = false): string {
    let text = this.#decoder.decode(bytes, { stream: !last });
    if (this.encoding === 'windows-1252') text = mended(text);
    if (this.#heldReturn) text = `\r${text}`;
    this.#heldReturn = !last && text.endsWith('\r');
    if (this.#heldReturn) text = text.slice(0, -1);
    if (text.includes('\ufffd')) this.undecoded += text.split('\ufffd').length - 1;
    if (text.includes('\0')) this.nuls += text.split('\0').length - 1;
    if (!text.includes('\r')) {
      if (text.includes('\n')) this.lineEnds.lf++;
      return text;
    }
    if (/(^|[^\r])\n/.test(text)) this.lineEnds.lf++;
    if (/\r(?!\n)/.test(text)) this.lineEnds.cr++;
    if (text.includes('\r\n')) this.lineEnds.crlf++;
    return text.replace(/\r\n?/g, '\n');
  }

  /** Whether lines end in more than one way. */
  get mixedLineEnds(): boolean {
    const { lf, crlf, cr } = this.lineEnds;
    return [lf, crlf, cr].filter((n) => n > 0).length > 1;
  }
}
