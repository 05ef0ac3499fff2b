import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { IntakeError } from '$lib/core/errors';
import { fullCell } from '$lib/core/table/cell';
import { isMissing } from '$lib/core/table/column';
import { arrowTable } from '$lib/core/read/decode/arrowFile';
import { unpackLz4Frame } from '$lib/core/read/decode/lz4Frame';

/**
 * 20,000 records, written by apache-arrow with buffers packed by the tools of the two formats themselves:
 * LZ4 in linked blocks of 64 KB (`lz4 -BD -B4 -9`), Zstandard (`zstd -9`). The library writes how long a packed
 * buffer is where the format asks for how long it was: that was set right.
 */
const packed = (name: string): Uint8Array =>
  new Uint8Array(readFileSync(new URL(`../../fixtures/${name}`, import.meta.url)));
const LIMIT = 1e8;

describe.each(['packed-lz4.arrow', 'packed-zstd.arrows'])('%s', (name) => {
  it('holds what was packed, cell by cell', () => {
    const { length, columns } = arrowTable(packed(name), LIMIT);
    expect([length, columns.map((c) => [c.name, c.type])]).toEqual([
      20_000,
      [
        ['Day', 'date'],
        ['Route', 'text'],
        ['Fares', 'number'],
      ],
    ]);
    const [day, route, fares] = columns;
    const routes = ['Holm', 'Ness', 'Skerry'];
    const first = Date.UTC(2024, 0, 1);
    for (let i = 0; i < length; i++) {
      const cells = [day, route, fares].map((c) => (isMissing(c, i) ? null : fullCell(c, i)));
      const expected = [
        new Date(first + (i % 366) * 86_400_000).toISOString().slice(0, 10),
        i % 7 === 0 ? null : routes[i % 3],
        i % 11 === 0 ? null : String((i % 50) / 4),
      ];
      if (cells.join() !== expected.join()) expect([i, cells]).toEqual([i, expected]);
    }
  });

  it('that unfolds to more than it may is refused before it is unpacked', () => {
    expect(() => arrowTable(packed(name), 100_000)).toThrow(/more than/);
  });

  it('of which one part says that it unfolds to much is refused before it is unpacked', () => {
    const bytes = packed(name);
    const view = new DataView(bytes.buffer);
    // The fares: 20,000 of 8 bytes.
    const at = Array.from({ length: bytes.length - 8 }, (_, k) => k).find(
      (k) => view.getBigInt64(k, true) === 160_000n,
    );
    view.setBigInt64(at ?? 0, BigInt(2 ** 30), true);
    expect(() => arrowTable(bytes, LIMIT)).toThrow(/more than/);
  });

  it('damaged anywhere is refused, or is read with as many records', () => {
    const whole = packed(name);
    let refused = 0;
    for (let k = 0; k < 300; k++) {
      const bytes = whole.slice();
      bytes[(k * 7919) % bytes.length] ^= 1 << (k % 8);
      try {
        expect(arrowTable(bytes, LIMIT).length).toBe(20_000);
      } catch (error) {
        expect(error).toBeInstanceOf(IntakeError);
        refused++;
      }
    }
    expect(refused).toBeGreaterThan(20);
  });
});

describe('an LZ4 frame', () => {
  /** Magic, descriptor, its sum (not looked at), blocks, an end of four zeros. */
  const frame = (...blocks: number[][]): Uint8Array =>
    Uint8Array.from([0x04, 0x22, 0x4d, 0x18, 0x40, 0x40, 0xc0, ...blocks.flat(), 0, 0, 0, 0]);
  const stored = (...bytes: number[]): number[] => [bytes.length, 0, 0, 0x80, ...bytes];
  const block = (...bytes: number[]): number[] => [bytes.length, 0, 0, 0, ...bytes];

  it('by hand: stored bytes, literals, and a match that reaches into the block before', () => {
    // Token 0x10: one literal, a match of 4; 3 back. Then token 0x10 and the last literal.
    const bytes = frame(stored(1, 2, 3), block(0x10, 9, 3, 0, 0x10, 7));
    expect([...unpackLz4Frame(bytes, 9)]).toEqual([1, 2, 3, 9, 2, 3, 9, 2, 7]);
    // A match that overlaps what it makes.
    expect([...unpackLz4Frame(frame(block(0x11, 5, 1, 0, 0x10, 6)), 7)]).toEqual([
      5, 5, 5, 5, 5, 5, 6,
    ]);
  });

  it.each([
    ['of another size than was said', frame(stored(1, 2)), 3],
    ['with a match before its start', frame(block(0x10, 9, 2, 0, 0x10, 7)), 6],
    ['with a match of nothing', frame(block(0x10, 9, 0, 0, 0x10, 7)), 6],
    ['that ends within a length', frame(block(0xf0, 255)), 400],
    ['of more than there is room for', frame(stored(1, 2, 3)), 2],
    ['that is none', Uint8Array.from([1, 2, 3, 4, 5, 6, 7, 8]), 1],
  ])('%s is refused', (_, bytes, size) => {
    expect(() => unpackLz4Frame(bytes, size)).toThrow(RangeError);
  });
});
