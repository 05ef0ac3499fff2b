import { gatherRows } from './gatherRows';
import type { ArgsOf, Do, ReplyOf, Row, TableHead } from './protocol';

/** Asks an engine, in the page's worker or beside it. */
export type Asker = <K extends Do>(kind: K, args: ArgsOf<K>) => Promise<ReplyOf<K>> | ReplyOf<K>;

/** A table with the rows that have come. */
export type Gathered = { readonly head: TableHead } & ReplyOf<'rows'>;

/**
 * A table with its first rows and all its columns, in as many answers as their weight and their
 * number take.
 * @param first its head as an answer to the tally has it: with the first of its columns
 * @param most rows at most
 */
export async function gatherTable(
  ask: Asker,
  first: TableHead,
  of: Omit<ArgsOf<'rows'>, 'from' | 'count' | 'across'>,
  most: number,
): Promise<Gathered> {
  const { token, tally, table } = of;
  const rowsFrom = (across: number): Promise<ReplyOf<'rows'>> =>
    gatherRows((from, count) => ask('rows', { ...of, across, from, count }), 0, most);
  let have: Gathered = { head: first, ...(await rowsFrom(0)) };
  for (let seen = widthOf(first); seen < first.across.of; seen = widthOf(have.head)) {
    const head = await ask('head', { token, tally, table, across: seen });
    have = beside(have, { head, ...(await rowsFrom(seen)) });
  }
  return have;
}

/** Columns of figures that a head has. */
const widthOf = ({ columns, labels }: TableHead): number => columns.length - labels;

/** The same rows with the figures of further columns beside those they have. */
function beside(have: Gathered, more: Gathered): Gathered {
  const { head } = have;
  const { labels } = head;
  const shift = widthOf(head);
  const wider = (row: Row, further: Row): Row => ({
    ...row,
    cells: [...row.cells, ...further.cells.slice(labels)],
    figures: [...row.figures, ...further.figures.slice(labels)],
    // What marks the row or a label is marked there already.
    marks: [
      ...row.marks,
      ...further.marks.flatMap(({ column, ...mark }) =>
        column === undefined || column < labels ? [] : [{ ...mark, column: column + shift }],
      ),
    ],
  });
  return {
    head: { ...head, columns: [...head.columns, ...more.head.columns.slice(labels)] },
    length: have.length,
    rows: have.rows.map((row, n) => wider(row, more.rows[n])),
    whole: have.whole && more.whole && wider(have.whole, more.whole),
  };
}
