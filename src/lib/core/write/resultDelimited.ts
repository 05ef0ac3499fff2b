import { keysOfRow } from '../tally/answer';
import type { AskedTally, Figure, FigureColumn, FigureTable } from '../tally/result';
import { headOf } from '../table/format';
import { USUAL_DIALECT } from './dialect';
import { finish } from '../steps/steps';
import {
  gridOf,
  textLine,
  toDelimited,
  type Cell,
  type Grid,
  type LineDialect,
  type Written,
} from './grid';

/**
 * Results as delimited text (RFC 4180), for programs: labels are the values behind them (2022 for
 * “2,022”, a period's first day, nothing for blank), figures have all their digits, none is empty, and
 * no text can start a formula in the program that opens the file. The last three columns say what a
 * row is (`group`, `total`, `others`, `outside`), its level, and how it reads for people.
 *
 * One table of one tally is a plain table; of several, each stands under a line with its sentence,
 * with an empty line between them.
 */
export function resultsAsDelimited(
  tallies: readonly AskedTally[],
  dialect: LineDialect = USUAL_DIALECT,
): Written {
  const tables = tallies.flatMap((t) =>
    t.tables.map((table) => ({ words: `${t.title ?? t.words} ${table.caption}`, table })),
  );
  const [only] = tables;
  if (only && tables.length === 1) return finish(toDelimited(asGrid(only.table), dialect));
  let guarded = 0;
  const parts = tables.map(({ words, table }) => {
    const out = finish(toDelimited(asGrid(table), dialect));
    const line = textLine(words, dialect);
    guarded += out.guarded + line.guarded;
    return line.text + out.text;
  });
  return { text: parts.join('\r\n'), guarded };
}

function asGrid(table: FigureTable): Grid {
  return gridOf(
    [...headsOf(table.columns), 'row kind', 'row level', 'row label'],
    table.rows.map((row) => {
      const keys = keysOfRow(row, table.labels);
      const isText = (_: Figure, c: number): boolean => table.columns[c].type === 'text';
      const labels = row.cells.slice(0, table.labels);
      const label = labels.filter(isText).findLast((cell) => cell !== null) ?? labels[0] ?? null;
      return [
        ...row.cells.map((cell, c) => (c < table.labels ? (keys[c] ?? null) : cell)),
        row.kind,
        row.level,
        label,
      ].map(asCell);
    }),
  );
}

const asCell = (figure: Figure): Cell => ({
  text: figure === null ? '' : String(figure),
  free: typeof figure === 'string',
  right: typeof figure === 'number',
});

/** Titles with their units; two columns of one title have their keys besides. */
function headsOf(columns: readonly FigureColumn[]): string[] {
  const heads = columns.map(({ title, unit }) => headOf(title, unit));
  return heads.map((head, k) =>
    heads.indexOf(head) === heads.lastIndexOf(head) ? head : `${head} [${columns[k].key}]`,
  );
}
