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
  const columns = head.columns.map((column, at): ShownColumn => {
    const [first, ...rest] = column.title.split(' › ');
    const sub = [...rest, column.unit].filter(Boolean).join(', ');
    return { ...column, at, words: first, sub };
  });
  const labels = columns.slice(0, head.labels).filter((c) => !isSpan(head, c.at));
  const tree = head.levels > 0 && labels.length > 0;
  const named = labels.map((c) => c.words).join(' › ');
  return {
    tree,
    labels: tree ? [{ ...labels[0], words: named, right: false }] : labels,
    figures: columns.slice(head.labels),
  };
}
