import { HeadsDiffer, IntakeError } from '../../errors';
import { doubt, type Doubt } from '../doubts';
import { counted } from '../../table/format';
import type { Table } from '../../table/table';
import { detectForm } from './detect';
import { gridAsText, rowsAsText, type CellGrid } from './cellGrid';
import { detectEncoding, HEAD_BYTES, TextStream } from '../textDecoding';
import { gunzip } from './gzip';
import { NO_PARTS, type DatabaseForm, type FileForm, type FileParts, type Source } from './source';
import type { DeclaredColumn } from './declared';
import type { Member } from './zip';

/** A file opened to what can be read: cells of text, or columns that know their types. */
export interface Decoded {
  readonly source: Source;
  readonly choices: FileParts;
  /** What was seen on the way that a look at the cells would not tell. */
  readonly doubts: readonly Doubt[];
  readonly content:
    | { readonly kind: 'text'; readonly bytes: Uint8Array; readonly grid: CellGrid | null }
    | {
        readonly kind: 'typed';
        readonly table: Table;
        /** What a database declares of its columns. */
        readonly declared?: readonly DeclaredColumn[];
      };
}

/** Which of several things in a file is wanted: as a list's recipe has it, or as was chosen. */
export type PartWanted = Pick<Source, 'member' | 'part' | 'all' | 'cuts' | 'block' | 'heads'>;

type Told = (share: number) => void;

/** Shares of the time that a large workbook takes, as it came out for 200,000 records. */
const OPENED = { unpacked: 0.1, parsed: 0.75, taken: 0.9 } as const;

/** Lines of fixed-width text that are shown, for its columns to be cut by hand. */
const LINES_SHOWN = 12;

/** What is read from bytes; a database is read where it lies. */
type Readable = Exclude<FileForm, DatabaseForm>;

/**
 * Opens whatever is more than delimited text: packed files, workbooks, JSON, Arrow, Parquet. What reads
 * each of them is loaded when it is used.
 * @param limit bytes that it may unfold to
 * @param wanted the file of a package, the sheet of a workbook; found by itself unless named
 * @param missing what of a name that is not there: refuse the file, or find another and say so
 * @param told is told now and then what share of the work is done, where that takes a while
 * @throws IntakeError
 */
export async function decodeFile(
  bytes: Uint8Array,
  limit: number,
  wanted: PartWanted = {},
  missing: 'refuse' | 'say' = 'refuse',
  told: Told = () => undefined,
): Promise<Decoded> {
  if (missing === 'refuse') return decodeWanted(bytes, limit, wanted, told);
  try {
    return await decodeWanted(bytes, limit, wanted, told);
  } catch (error) {
    if (!(error instanceof IntakeError) || error.why !== 'part') throw error;
    const found = await decodeWanted(bytes, limit, {}, told);
    const instead = found.source.part ?? found.source.member ?? 'all of it';
    const words = `${error.message} “${instead}” is read in its place.`;
    return { ...found, doubts: [doubt('otherParts', 1, words), ...found.doubts] };
  }
}

async function decodeWanted(
  bytes: Uint8Array,
  limit: number,
  wanted: PartWanted,
  told: Told,
): Promise<Decoded> {
  const form = detectForm(bytes);
  if (form === 'gzip') {
    const inner = await unfoldForm(innerForm(await gunzip(bytes, limit)), limit, wanted, told);
    return { ...inner, source: { ...inner.source, packed: 'gzip' } };
  }
  if (form !== 'zip') return unfoldForm({ form, bytes }, limit, wanted, told);
  const { isOwnFile, namesInZip, unzip } = await import('./zip');
  const names = namesInZip(bytes);
  if (isWorkbook(names)) {
    // Read whole first: its sums are checked, and it unfolds to no more than is allowed. What opens
    // workbooks unpacks slowly: it gets the files as they are.
    const files = unzip(bytes, limit).map(({ name, bytes: file }) => [name, file] as const);
    const { zipSync } = await import('fflate');
    const plain = zipSync(Object.fromEntries(files), { level: 0 });
    told(OPENED.unpacked);
    return unfoldForm({ form: 'workbook', bytes: plain }, limit, wanted, told);
  }
  const members = names.filter(isOwnFile);
  if (members.length === 0) throw new IntakeError('empty', 'The package holds no files.');
  const { member: named } = wanted;
  if (named !== undefined && !members.includes(named))
    throw notThere('file', named, members, 'The package');
  const unpacked = unzip(bytes, limit, named === undefined ? isOwnFile : (name) => name === named);
  const stacked =
    named === undefined && members.length > 1 ? await stackedOf(unpacked, wanted) : null;
  if (stacked)
    return {
      source: {
        form: 'delimited',
        packed: 'zip',
        all: true,
        ...(wanted.heads && { heads: wanted.heads }),
      },
      choices: { ...NO_PARTS, members },
      doubts: [],
      content: { kind: 'text', bytes: stacked, grid: null },
    };
  const [{ name: member, bytes: taken }] = unpacked;
  const inner = await unfoldForm(innerForm(taken), limit, wanted, told);
  return {
    ...inner,
    source: { ...inner.source, packed: 'zip', member },
    choices: { ...inner.choices, members },
    doubts: [...otherFiles(members, member), ...inner.doubts],
  };
}

const otherFiles = (members: readonly string[], member: string): Doubt[] => {
  const others = members.filter((name) => name !== member);
  return others.length
    ? [
        doubt(
          'otherParts',
          others.length,
          `${counted(others.length, 'other file')} of the package ${others.length === 1 ? 'is' : 'are'} not read: ${others
            .slice(0, 12)
            .map((name) => `“${name}”`)
            .join(', ')}${others.length > 12 ? ' and more' : ''}.`,
        ),
      ]
    : [];
};

/** A name that was asked for and is not among those there are. */
const notThere = (what: string, name: string, names: readonly string[], of: string): IntakeError =>
  new IntakeError(
    'part',
    `${of} has no ${what} “${name}”. It has ${names.map((one) => `“${one}”`).join(', ')}.`,
  );

/**
 * Files of one shape put together; null where they have nothing in common and it was not asked for.
 * @throws IntakeError why those that were asked for cannot be
 */
async function stackedOf(
  files: readonly Member[],
  { all, heads }: PartWanted,
): Promise<Uint8Array | null> {
  const { stackedText } = await import('./stacked');
  try {
    const other = files.find(({ bytes }) => detectForm(bytes) !== 'delimited');
    if (other)
      throw new IntakeError(
        'form',
        `“${other.name}” is not delimited text: only files of that are put together.`,
      );
    return stackedText(files, heads);
  } catch (error) {
    const alike = error instanceof HeadsDiffer && error.alike;
    if (all || alike || !(error instanceof IntakeError)) throw error;
    return null;
  }
}

const isWorkbook = (names: readonly string[]): boolean =>
  names.some((name) => /^xl\/workbook\./.test(name)) ||
  (names.includes('content.xml') && names.includes('mimetype'));

/** What a packed file is; another package within is told, not opened. */
function innerForm(bytes: Uint8Array): { form: Readable; bytes: Uint8Array } {
  const form = detectForm(bytes);
  if (form === 'zip') return { form: 'workbook', bytes };
  if (form === 'gzip')
    throw new IntakeError('form', 'The file is packed twice. Unpack it once and bring that in.');
  return { form, bytes };
}

async function unfoldForm(
  { form, bytes }: { form: Readable; bytes: Uint8Array },
  limit: number,
  wanted: PartWanted,
  told: Told,
): Promise<Decoded> {
  const asGrid = (grid: CellGrid): Decoded['content'] => ({
    kind: 'text',
    bytes: gridAsText(grid),
    grid,
  });
  const plain = { source: { form }, choices: NO_PARTS, doubts: [] };
  switch (form) {
    case 'delimited':
      return { ...plain, content: { kind: 'text', bytes, grid: null } };
    case 'fixed': {
      const { cutLines, cutsOf } = await import('./fixedWidth');
      const text = new TextStream(detectEncoding(bytes.subarray(0, HEAD_BYTES))).push(bytes, true);
      const lines = text.split(/\r?\n/);
      const cuts = wanted.cuts ?? cutsOf(lines);
      const cut = rowsAsText(cutLines(lines, cuts));
      return {
        ...plain,
        source: { form, cuts: [...cuts] },
        choices: { ...NO_PARTS, lines: lines.slice(0, LINES_SHOWN) },
        content: { kind: 'text', bytes: cut, grid: null },
      };
    }
    case 'json': {
      const { jsonGrid } = await import('./json');
      const { grid, doubts } = jsonGrid(bytes);
      return { ...plain, doubts, content: asGrid(grid) };
    }
    case 'workbook': {
      const { openWorkbook } = await import('./workbook');
      const book = openWorkbook(bytes, limit);
      told(OPENED.parsed);
      if (wanted.all && wanted.part === undefined && book.shown.length > 1) {
        const { stackedSheets } = await import('./stackedSheets');
        const { grid, doubts } = stackedSheets(book, wanted.heads);
        told(OPENED.taken);
        return {
          source: { form, all: true, ...(wanted.heads && { heads: wanted.heads }) },
          choices: { ...NO_PARTS, parts: book.sheets },
          doubts,
          content: asGrid(grid),
        };
      }
      const part = wanted.part ?? book.main;
      if (!book.sheets.includes(part)) throw notThere('sheet', part, book.sheets, 'The workbook');
      const { grid, doubts, blocks, block } = book.sheet(part, wanted.block);
      told(OPENED.taken);
      return {
        source: { form, part, ...(block !== undefined && { block }) },
        choices: { ...NO_PARTS, parts: book.sheets, blocks },
        doubts,
        content: asGrid(grid),
      };
    }
    case 'arrow': {
      const { arrowTable } = await import('./arrowFile');
      return { ...plain, content: { kind: 'typed', table: arrowTable(bytes, limit) } };
    }
    case 'parquet': {
      const { parquetTable } = await import('./parquet');
      return { ...plain, content: { kind: 'typed', table: await parquetTable(bytes, limit) } };
    }
  }
}
