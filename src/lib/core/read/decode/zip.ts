import { Unzip, UnzipInflate } from 'fflate';
import { IntakeError } from '../../errors';
import { joined } from './joined';
import { crc32 } from './crc32';
import { damaged, tooLarge } from './faults';

/** A file of a package. */
export interface Member {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Files of a package beyond these are no lists. */
const MOST_MEMBERS = 10_000;
/** Bytes handed to the unpacking at a time, so that what it makes of them is counted early. */
const PIECE = 1 << 16;

const ENTRY = 0x02014b50;
const END = 0x06054b50;
const END_BYTES = 22;
const LONGEST_COMMENT = 0xffff;

/** The checksum of each file by its name, from the directory at the end of a package (APPNOTE 4.3.12, 4.3.16). */
function checksums(bytes: Uint8Array): Map<string, number> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - END_BYTES;
  const least = Math.max(0, end - LONGEST_COMMENT);
  while (end >= least && view.getUint32(end, true) !== END) end--;
  if (end < least) throw damaged('its directory is missing');
  const out = new Map<string, number>();
  let at = view.getUint32(end + 16, true);
  for (let n = view.getUint16(end + 10, true); n > 0; n--) {
    if (at + 46 > bytes.length || view.getUint32(at, true) !== ENTRY)
      throw damaged('its directory is damaged');
    const name = view.getUint16(at + 28, true);
    const more = view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
    out.set(
      new TextDecoder().decode(bytes.subarray(at + 46, at + 46 + name)),
      view.getUint32(at + 16, true),
    );
    at += 46 + name + more;
  }
  return out;
}

/** Names of the files in a package. @throws IntakeError where its directory is damaged */
export const namesInZip = (bytes: Uint8Array): string[] => [...checksums(bytes).keys()];

/** Folders, and what systems add of their own. */
export const isOwnFile = (name: string): boolean =>
  !name.endsWith('/') && !/(^|\/)(__MACOSX\/|\.)/.test(name);

/**
 * The files of a zip package (ISO/IEC 21320-1), each checked by its sum. What unfolds to more than the
 * limit, all files together, is refused as it unfolds, whatever sizes the package names.
 * @param wanted which of them to unpack
 * @throws IntakeError
 */
export function unzip(
  bytes: Uint8Array,
  limit: number,
  wanted: (name: string) => boolean = () => true,
): Member[] {
  const sums = checksums(bytes);
  if (sums.size > MOST_MEMBERS) throw damaged('it holds too many files');
  const parts = new Map<string, Uint8Array[]>();
  let size = 0;
  const stream = new Unzip((file) => {
    if (!sums.has(file.name) || !wanted(file.name)) return;
    const pieces: Uint8Array[] = [];
    file.ondata = (error, piece) => {
      if (error) throw error;
      size += piece.length;
      if (size > limit) throw tooLarge(limit);
      pieces.push(piece);
    };
    parts.set(file.name, pieces);
    file.start();
  });
  stream.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += PIECE)
      stream.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
  } catch (error) {
    throw error instanceof IntakeError
      ? error
      : damaged(error instanceof Error ? error.message : String(error));
  }
  return [...sums]
    .filter(([name]) => wanted(name))
    .map(([name, sum]) => {
      const member = joined(parts.get(name) ?? []);
      if (crc32(member) !== sum) throw damaged(`“${name}” in it is damaged`);
      return { name, bytes: member };
    });
}
