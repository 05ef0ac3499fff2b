import type { TableColumn, TableHead } from '../../engine/protocol';
import { isSpan } from './source';

/** A column of a figure table as it is drawn. */
export interface ShownColumn extends TableColumn {
  /** Its place in the table. */
  readonly at: number;
  /** The words of the head, and those in small under them. */
  readonly words: string;
  readonly sub: string;
}

/** What of a table's columns is drawn: its levels as one column that folds, spans not again. */
export interface ShownColumns {
  /** Labels in one column, indented by level. */
  readonly tree: boolean;
  readonly labels: readonly ShownColumn[];
  readonly figures: readonly ShownColumn[];
}

export function shownColumns(head: TableHead): ShownColumns {
  const columns = head.columns
    .map((column, at): ShownColumn => ({ ...column, at, ...wordsOf(column, head) }))
    .filter((column) => !isSpan(head, column.at));
  const labels = columns.filter((c) => c.at < head.labels);
  const tree = head.levels > 0 && labels.length > 0;
  const named = labels.map((c) => c.words).join(' › ');
  return {
    tree,
    labels: tree ? [{ ...labels[0], words: named, right: false }] : labels,
    figures: columns.filter((c) => c.at >= head.labels),
  };
}

/** Short words for a head: what it is of, then the measure and its unit in small. */
function wordsOf(column: TableColumn, head: TableHead): { words: string; sub: string } {
  const { title, unit, measure, of, key } = column;
  const [first, ...rest] = title.split(' › ');
  if (rest.length) return { words: first, sub: small(measure || rest.join(' › '), unit) };
  if (of) return { words: of, sub: small(measure, unit) };
  // What follows from a measure is said without saying the measure again.
  const main = head.columns.find((c) => key.startsWith(`${c.key}.`));
  const own =
    main && title.startsWith(`${main.title}, `) ? title.slice(main.title.length + 2) : title;
  return { words: own.charAt(0).toUpperCase() + own.slice(1), sub: unit };
}

const small = (words: string, unit: string): string => [words, unit].filter(Boolean).join(', ');
