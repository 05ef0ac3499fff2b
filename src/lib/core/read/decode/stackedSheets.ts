import { IntakeError } from '../../errors';
import { uniqueNames } from '../infer';
import { detectLayout, trimmedRow } from '../layout';
import { HEAD_BYTES } from '../textDecoding';
import type { Doubt } from '../doubts';
import { BLANK, gridAsText, type CellGrid, type GridCell } from './cellGrid';
import { stackedRows, type HeadsSettled, type Stackable } from './stacked';
import type { Workbook } from './workbook';

/** Rows looked at for the header of a sheet. */
const LOOKED_AT = 400;

/**
 * The sheets of a workbook as one table: their records one behind the other, each with the name of its sheet, columns
 * found by their headings. Hidden and empty sheets are left out, and told.
 * @param settled what each head is that not all sheets have
 * @throws HeadsDiffer where that is not said of all of them
 * @throws IntakeError for a sheet without a header
 */
export function stackedSheets(
  book: Workbook,
  settled: HeadsSettled = {},
): { grid: CellGrid; doubts: Doubt[] } {
  const doubts: Doubt[] = [];
  const sheets = book.shown.map((name): Stackable<GridCell> => {
    const { grid, doubts: own } = book.sheet(name);
    doubts.push(
      ...own
        .filter(({ kind }) => kind !== 'otherParts' || book.shown.length < 2)
        .map((doubt) => ({ ...doubt, words: `${name}: ${doubt.words}` })),
    );
    return tableOf(name, grid);
  });
  const text = (value: string): GridCell => ({ kind: 'text', text: value });
  const { heads, rows } = stackedRows(
    sheets,
    settled,
    { one: 'Sheet', many: 'sheets' },
    text,
    BLANK,
  );
  return { grid: [heads.map(text), ...rows], doubts };
}

/** A sheet's heads and the records below them. */
function tableOf(name: string, grid: CellGrid): Stackable<GridCell> {
  const bytes = gridAsText(grid.slice(0, LOOKED_AT));
  const text = new TextDecoder().decode(bytes.subarray(0, HEAD_BYTES));
  const layout = detectLayout(text, 'utf-8', bytes.length <= HEAD_BYTES, {
    delimiter: ',',
    quote: '"',
  });
  if (!layout.header)
    throw new IntakeError(
      'columns',
      `“${name}” has no header that names its columns: sheets are put together by their headings.`,
    );
  const [head = [], ...rows] = grid
    .slice(layout.skipLines)
    .filter((row) => row.some((cell) => cell.text.trim() !== ''));
  const texts = trimmedRow(head.map((cell) => cell.text));
  const { names } = uniqueNames(texts);
  return { name, heads: names, rows: layout.unitsBelow ? rows.slice(1) : rows };
}
