import { OpenedFile } from '$lib/core/read/opened';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import { DelimitedReader } from '$lib/core/read/delimited';
import { decodeFile } from '$lib/core/read/decode/decode';
import { isText, type Column } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { tableFile } from '$lib/core/write/tableFile';
import type { Meter } from './meter';

const NO_LIMIT = Infinity;
const ROUNDS = 3;

/** Files of other forms against delimited text of the same records. */
export async function benchForms(table: Table, { atMost, within }: Meter): Promise<void> {
  const written = async (form: 'csv' | 'arrow' | 'parquet', list = table): Promise<Uint8Array> =>
    (await tableFile({ name: 'Made', table: list, notes: [] }, form)).bytes;
  const csv = await written('csv');
  const text = await timed(() => {
    const opened = OpenedFile.delimited(csv.subarray(0, HEAD_BYTES), false);
    const reader = new DelimitedReader(opened.propose());
    reader.push(csv, true);
    return Promise.resolve(reader.finish());
  });
  for (const [form, bar] of [
    ['parquet', 0.6],
    ['arrow', 0.25],
  ] as const) {
    const bytes = await written(form);
    const took = await timed(async () => {
      const opened = OpenedFile.unfolded(await decodeFile(bytes, NO_LIMIT));
      return opened.typed(opened.propose());
    });
    atMost(`reading 1,000,000 records of ${form}`, took / text, bar, 'the delimited text of them');
  }
  const some = first(table, 200_000);
  const { bytes: book } = await tableFile({ name: 'Made', table: some, notes: [] }, 'xlsx');
  within(
    'reading a workbook of 200,000 records of 12 columns',
    await timed(async () => {
      const opened = OpenedFile.unfolded(await decodeFile(book, NO_LIMIT));
      const reader = new DelimitedReader(opened.propose());
      reader.push(opened.text ?? new Uint8Array(0), true);
      return reader.finish();
    }, 1),
    20_000,
  );
  within(
    'writing it',
    await timed(() => tableFile({ name: 'Made', table: some, notes: [] }, 'xlsx'), 1),
    20_000,
  );
}

/** The middle of several runs, in milliseconds. */
async function timed(work: () => Promise<unknown>, rounds = ROUNDS): Promise<number> {
  const times: number[] = [];
  for (let k = 0; k < rounds; k++) {
    globalThis.gc?.();
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[rounds >> 1];
}

const first = ({ columns }: Table, length: number): Table => ({
  length,
  columns: columns.map((c): Column =>
    isText(c)
      ? { ...c, codes: c.codes.slice(0, length) }
      : { ...c, values: c.values.slice(0, length) },
  ),
});
