import { gzipSync } from 'node:zlib';
import { Table, tableToIPC, vectorFromArray } from 'apache-arrow';
import { utils, write } from '@e965/xlsx';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { parquetWriteBuffer } from 'hyparquet-writer';
import { describe, expect, it } from 'vitest';
import { IntakeError } from '$lib/core/errors';
import { OpenedFile } from '$lib/core/read/opened';
import { isText } from '$lib/core/table/column';
import { decodeFile } from '$lib/core/read/decode/decode';

/** Damaged files of each form: refused with words, or read whole; never a crash, a hang, or half of it. */
const RUNS = Math.min(2000, Number(process.env.TALLY_LOFT_MANGLE ?? 120));
const LIMIT = 1 << 24;

const rows = Array.from({ length: 40 }, (_, k) => ({
  route: `R${k % 3}`,
  fares: k / 4,
  late: k % 2 === 0,
}));
const csv = strToU8(
  `route,fares,late\n${rows.map((r) => `${r.route},${r.fares},${r.late}`).join('\n')}\n`,
);
function workbook(bookType: 'xlsx' | 'ods'): Uint8Array {
  const book = utils.book_new();
  utils.book_append_sheet(book, utils.json_to_sheet(rows), 'S');
  return new Uint8Array(write(book, { type: 'array', bookType, compression: true }) as ArrayBuffer);
}
const arrow = new Table({
  route: vectorFromArray(rows.map((r) => r.route)),
  fares: vectorFromArray(rows.map((r) => r.fares)),
});
const FILES: readonly (readonly [string, Uint8Array])[] = [
  ['gzip', gzipSync(csv)],
  ['zip', zipSync({ 'a.csv': csv })],
  ['xlsx', workbook('xlsx')],
  ['ods', workbook('ods')],
  ['json', strToU8(JSON.stringify(rows))],
  ['arrow file', tableToIPC(arrow, 'file')],
  ['arrow stream', tableToIPC(arrow, 'stream')],
  [
    'parquet',
    new Uint8Array(
      parquetWriteBuffer({
        columnData: [
          { name: 'route', data: rows.map((r) => r.route), type: 'STRING' },
          { name: 'fares', data: rows.map((r) => r.fares), type: 'DOUBLE' },
          // Few values, many times, and blanks: a dictionary, with runs of places and of levels.
          { name: 'port', data: rows.map((_, k) => (k % 3 ? 'Holm' : null)), type: 'STRING' },
        ],
      }),
    ),
  ],
];

/** Bytes changed, or the end cut off. */
function damage(
  bytes: Uint8Array,
  places: readonly (readonly [number, number])[],
  cut: number,
): Uint8Array {
  const out = new Uint8Array(
    cut > 0.9 ? bytes.subarray(0, Math.floor(bytes.length * (cut - 0.9) * 10)) : bytes,
  );
  for (const [at, byte] of places) if (out.length > 0) out[at % out.length] = byte;
  return out;
}

describe.each(FILES)('a damaged file: %s', (_, bytes) => {
  it('is refused, or read with as many values in each column as there are records', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(1 << 20), fc.nat(255)), { minLength: 1, maxLength: 4 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        async (places, cut) => {
          try {
            const opened = OpenedFile.unfolded(await decodeFile(damage(bytes, places, cut), LIMIT));
            const recipe = opened.propose();
            const typed = opened.typed(recipe)?.table;
            for (const column of typed?.columns ?? [])
              expect((isText(column) ? column.codes : column.values).length).toBe(typed?.length);
            opened.preview(recipe, 5);
            opened.doubts(recipe);
          } catch (error) {
            if (!(error instanceof IntakeError)) throw error;
            expect(error.message).toMatch(/\w/);
          }
        },
      ),
      { numRuns: RUNS },
    );
  });
});

describe('a Parquet file whose runs are damaged', () => {
  it('is refused before a run is written as long as it says it is', async () => {
    const bytes = new Uint8Array(
      parquetWriteBuffer({
        columnData: [
          {
            name: 'port',
            data: Array.from({ length: 400 }, (_, k) =>
              k < 200 ? 'Holm' : k < 300 ? null : 'Ness',
            ),
            type: 'STRING',
          },
        ],
      }),
    );
    const words: string[] = [];
    for (let at = 4; at < bytes.length - 8; at++)
      for (const byte of [0xff, 0xfe, 0x7f]) {
        const damaged = bytes.slice();
        damaged[at] = byte;
        await decodeFile(damaged, LIMIT).catch((error: unknown) => {
          expect(error).toBeInstanceOf(IntakeError);
          words.push(String(error));
        });
      }
    expect(words.filter((text) => /a run is longer/.test(text)).length).toBeGreaterThan(0);
  });
});

describe('what unfolds to more than is allowed', () => {
  const much = new Uint8Array(LIMIT + 1).fill(48);
  it.each([
    ['gzip', gzipSync(much)],
    ['zip', zipSync({ 'a.csv': much })],
  ])('%s is refused as it unfolds', async (_, packed) => {
    expect(packed.length).toBeLessThan(LIMIT / 100);
    await expect(decodeFile(packed, LIMIT)).rejects.toThrow(/more than 16 MB/);
  });
});
