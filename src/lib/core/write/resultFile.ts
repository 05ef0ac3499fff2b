import type { AskedTally } from '../tally/result';
import type { FigureColumn, FigureTable } from '../tally/result';
import { toDelimited, type Cell } from './grid';

/**
 * Results as delimited text (RFC 4180). One table of one tally is a plain table; of several, each
 * stands under a line with its sentence, with an empty line between them. Figures have all their
 * digits, none is empty, and no text can start a formula in the program that opens the file.
 */
export function resultsAsDelimited(
  tallies: readonly AskedTally[],
  delimiter = ',',
): { text: string; guarded: number } {
  const tables = tallies.flatMap((t) =>
    t.tables.map((table) => ({ says: `${t.title ?? t.says} ${table.caption}`, table })),
  );
  const [only] = tables;
  if (only && tables.length === 1) return toDelimited(asGrid(only.table), delimiter);
  let guarded = 0;
  const parts = tables.map(({ says, table }) => {
    const out = toDelimited(asGrid(table), delimiter);
    const line = toDelimited({ heads: [says], rows: [] }, delimiter);
    guarded += out.guarded + line.guarded;
    return line.text + out.text;
  });
  return { text: parts.join('\r\n'), guarded };
}

function asGrid(table: FigureTable): { heads: string[]; rows: Cell[][] } {
  return {
    heads: table.columns.map(headOf),
    rows: table.rows.map((row) =>
      row.cells.map((cell): Cell => ({
        text: cell === null ? '' : String(cell),
        free: typeof cell === 'string',
      })),
    ),
  };
}

const headOf = ({ title, unit }: FigureColumn): string => (unit ? `${title} (${unit})` : title);
