import { IntakeError } from '../../errors';
import { detectEncoding, HEAD_BYTES, TextStream } from '../decode';
import { detectLayout, headRows, trimmedRow } from '../layout';
import { isEmptyRow } from '../split';
import { rowsAsText } from './cellGrid';
import type { Member } from './zip';

/** A file of delimited text as its header and the lines below. */
interface Lines {
  readonly name: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** A heading as two files would both write it. */
const form = (head: string): string => head.trim().toLowerCase().replace(/\s+/g, ' ');

/** The column that says which file a record stood in. */
const FILE = 'File';

/**
 * Several files of one shape as one: their records one behind the other, each with the name of its file,
 * columns found by their headings wherever they stand. Each file is cut into cells by a layout of its own.
 * @throws IntakeError for one without a header, or whose columns are not those of the first
 */
export function stackedText(members: readonly Member[]): Uint8Array {
  const files = members.map(linesOf);
  const [first] = files;
  const named = first.heads.map(form);
  for (const { name, heads } of files) {
    const own = new Set(heads.map(form));
    const gone = first.heads.filter((head) => !own.has(form(head)));
    const more = heads.filter((head) => !named.includes(form(head)));
    if (gone.length || more.length)
      throw new IntakeError(
        'columns',
        `“${name}” has other columns than “${first.name}”: ${[
          ...(gone.length ? [`it lacks ${listed(gone)}`] : []),
          ...(more.length ? [`it has ${listed(more)} besides`] : []),
        ].join(', and ')}. Bring it in by itself, or give both the same columns.`,
      );
  }
  let own = FILE;
  for (let n = 2; named.includes(form(own)); n++) own = `${FILE} ${n}`;
  const rows = files.flatMap(({ name, heads, rows: lines }) => {
    const at = named.map((head) => heads.map(form).indexOf(head));
    // Cells past the header stay past it, where they are told.
    return lines.map((row) => [name, ...at.map((c) => row[c] ?? ''), ...row.slice(heads.length)]);
  });
  return rowsAsText([[own, ...first.heads], ...rows]);
}

const listed = (heads: readonly string[]): string => heads.map((head) => `“${head}”`).join(', ');

function linesOf({ name, bytes }: Member): Lines {
  const encoding = detectEncoding(bytes.subarray(0, HEAD_BYTES));
  const text = new TextStream(encoding).push(bytes, true);
  const layout = detectLayout(text.slice(0, HEAD_BYTES), encoding, text.length <= HEAD_BYTES);
  if (!layout.header)
    throw new IntakeError(
      'columns',
      `“${name}” has no header that names its columns: files are put together by their headings.`,
    );
  const [heads, ...rows] = headRows(text, layout, true).filter((row) => !isEmptyRow(row));
  return { name, heads: trimmedRow(heads ?? []), rows };
}
