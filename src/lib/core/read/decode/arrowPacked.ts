import { CompressionType, compressionRegistry } from 'apache-arrow';
import { decompressZstd } from 'hyparquet-compressors';
import { BadArrow } from '../../errors';
import { unpackLz4Frame } from './lz4Frame';

/** What the buffers of the data being read must come to, in the order in which they are unpacked. */
let sizes: number[] = [];

function unpack(
  how: (bytes: Uint8Array, size: number) => Uint8Array,
  bytes: Uint8Array,
): Uint8Array {
  const size = sizes.shift() ?? -1;
  try {
    if (size < 0) throw new RangeError('more buffers than were named');
    const unpacked = how(bytes, size);
    if (unpacked.length !== size) throw new RangeError('another size than was said');
    return unpacked;
  } catch (error) {
    throw new BadArrow(
      `A packed part of the data is damaged: ${error instanceof Error ? error.message : String(error)}.`,
    );
  }
}

compressionRegistry.set(CompressionType.LZ4_FRAME, {
  decode: (bytes) => unpack(unpackLz4Frame, bytes),
});
compressionRegistry.set(CompressionType.ZSTD, {
  decode: (bytes) => unpack((packed, size) => decompressZstd(packed, new Uint8Array(size)), bytes),
});

/**
 * Reads Arrow data whose buffers may be packed ("Buffer Compression" of the Arrow columnar format). The
 * library's way in knows no sizes: each buffer is held against the one that was found on the way through.
 * @param packed what each packed buffer comes to, in their order
 */
export function withPacked<T>(packed: readonly number[], read: () => T): T {
  sizes = [...packed];
  try {
    return read();
  } finally {
    sizes = [];
  }
}
