const MAGIC = 0x184d2204;
/** Bits of a frame's first descriptor byte. */
const BLOCK_SUMS = 0x10;
const CONTENT_SIZE = 0x08;
const DICTIONARY = 0x01;
/** Of a block's size: its bytes stand as they are. */
const STORED = 0x80000000;
const SHORTEST_MATCH = 4;

/**
 * Unpacks an LZ4 frame ("LZ4 Frame Format Description" 1.6, "LZ4 Block Format Description"), blocks that
 * refer to those before them too. Sums of blocks and content are not looked at.
 * @param size bytes that it must come to
 * @throws RangeError for a damaged frame, or one that comes to another size
 */
export function unpackLz4Frame(bytes: Uint8Array, size: number): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0, true) !== MAGIC) throw new RangeError('no LZ4 frame');
  const flags = view.getUint8(4);
  if (flags & DICTIONARY) throw new RangeError('an LZ4 frame with a dictionary');
  // Magic, two bytes that describe it, sizes, and a sum of these.
  let at = 7 + (flags & CONTENT_SIZE ? 8 : 0);
  const out = new Uint8Array(size);
  let length = 0;
  for (;;) {
    const block = view.getUint32(at, true);
    at += 4;
    if (block === 0) break;
    const end = at + (block & ~STORED);
    if (end > bytes.length) throw new RangeError('a block past the end');
    const part = bytes.subarray(at, end);
    if (block & STORED) {
      out.set(part, length);
      length += part.length;
    } else length = unpackBlock(part, out, length);
    at = end + (flags & BLOCK_SUMS ? 4 : 0);
  }
  if (length !== size) throw new RangeError('another size than was said');
  return out;
}

/** @returns where its bytes end in `out` */
function unpackBlock(block: Uint8Array, out: Uint8Array, from: number): number {
  let at = 0;
  let end = from;
  const run = (nibble: number): number => {
    let length = nibble;
    if (nibble === 15)
      for (let more = 255; more === 255;) {
        if (at >= block.length) throw new RangeError('a length past the end');
        more = block[at++];
        length += more;
      }
    return length;
  };
  while (at < block.length) {
    const token = block[at++];
    const literals = run(token >> 4);
    if (at + literals > block.length || end + literals > out.length)
      throw new RangeError('bytes past the end');
    out.set(block.subarray(at, at + literals), end);
    at += literals;
    end += literals;
    // The last of a block ends with its literals.
    if (at === block.length) break;
    if (at + 2 > block.length) throw new RangeError('an offset past the end');
    const offset = block[at] | (block[at + 1] << 8);
    at += 2;
    const match = run(token & 15) + SHORTEST_MATCH;
    if (offset === 0 || offset > end || end + match > out.length)
      throw new RangeError('a match outside');
    // A match may reach into what it makes: byte by byte.
    for (let k = 0; k < match; k++, end++) out[end] = out[end - offset];
  }
  return end;
}
