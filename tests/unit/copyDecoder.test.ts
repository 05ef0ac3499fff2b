import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullCell } from '$lib/core/table/cell';
import { CopyDecoder, int4, int8, text } from '$lib/server/databases/copyDecoder';
import { PartBuilder } from '$lib/server/databases/partBuilder';

const HEADER = Buffer.concat([Buffer.from('PGCOPY\n\xff\r\n\0', 'latin1'), Buffer.alloc(8)]);

type Row = readonly [whole: number | null, words: string | null, long: bigint];

const sized = (bytes: Buffer | null): Buffer => {
  const size = Buffer.alloc(4);
  size.writeInt32BE(bytes ? bytes.length : -1);
  return bytes ? Buffer.concat([size, bytes]) : size;
};

const wholeBytes = (n: number): Buffer => {
  const bytes = Buffer.alloc(4);
  bytes.writeInt32BE(n);
  return bytes;
};

const longBytes = (n: bigint): Buffer => {
  const bytes = Buffer.alloc(8);
  bytes.writeBigInt64BE(n);
  return bytes;
};

/** The binary form of COPY, as its description has it. */
const written = (rows: readonly Row[]): Buffer =>
  Buffer.concat([
    HEADER,
    ...rows.flatMap(([whole, words, long]) => [
      Buffer.from([0, 3]),
      sized(whole === null ? null : wholeBytes(whole)),
      sized(words === null ? null : Buffer.from(words)),
      sized(longBytes(long)),
    ]),
    Buffer.from([0xff, 0xff]),
  ]);

const DECLARED = [
  { name: 'whole', type: 'number', long: false, unit: '' },
  { name: 'words', type: 'text', long: false, unit: '' },
  { name: 'long', type: 'number', long: true, unit: '' },
] as const;

/** What comes of it, in pieces of these sizes, in tables of at most so many records. */
function decoded(bytes: Buffer, sizes: readonly number[], most: number): string[][] {
  const builder = new PartBuilder(DECLARED);
  const decoder = new CopyDecoder([int4, text, int8], builder);
  const out: string[][] = [];
  const take = (): void => {
    const { columns, length } = builder.take();
    expect(length).toBeLessThanOrEqual(most);
    for (let i = 0; i < length; i++) out.push(columns.map((c) => fullCell(c, i)));
  };
  for (let at = 0, k = 0; at < bytes.length; k++) {
    const size = sizes[k % sizes.length];
    let piece = bytes.subarray(at, at + size);
    while (decoder.push(piece, most)) {
      take();
      piece = Buffer.alloc(0);
    }
    at += size;
  }
  take();
  return out;
}

const row = fc.tuple(
  fc.option(fc.integer(), { nil: null }),
  fc.option(fc.oneof(fc.constantFrom('Holm', 'Ness', 'Skerry'), fc.string({ unit: 'grapheme' }))),
  fc.bigInt({ min: -(2n ** 63n), max: 2n ** 63n - 1n }),
);

describe('the binary form of COPY', () => {
  it('is the same records wherever its pieces end', () => {
    fc.assert(
      fc.property(
        fc.array(row, { maxLength: 60 }),
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 1, max: 25 }),
        (rows, sizes, most) => {
          const want = rows.map(([whole, words, long]) => [
            whole === null ? '' : String(whole),
            words === null || words.trim() === '' ? '' : words,
            String(long),
          ]);
          expect(decoded(written(rows), sizes, most)).toEqual(want);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('is told from anything else', () => {
    expect(() => decoded(Buffer.from('a,b\n1,2\n'.repeat(9)), [100], 9)).toThrow(/not in the form/);
  });

  it('keeps texts of one place apart, however many there are', () => {
    const rows = Array.from({ length: 30_000 }, (_, k): Row => [
      k,
      `Ticket ${k % 9000}`,
      BigInt(k),
    ]);
    const got = decoded(written(rows), [65_536], Infinity);
    expect(got.every(([, words], k) => words === `Ticket ${k % 9000}`)).toBe(true);
  });
});
