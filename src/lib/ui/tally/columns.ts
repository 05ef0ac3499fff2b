import type { TableColumn, TableHead } from '../../engine/protocol';
import { isSpan } from './source';

/** A column of a figure table as it is drawn. */
export interface ShownColumn extends TableColumn {
  /** Its place in the table. */
  readonly at: number;
  /** The words of the head, and those in small under them. */
  readonly words: string;
  readonly sub: string;
  /** Whether what it shares with its neighbours stands over them. */
  readonly under: boolean;
}

/** What of a table's columns is drawn: its levels as one column that folds, spans not again. */
export interface ShownColumns {
  /** Labels in one column, indented by level. */
  readonly tree: boolean;
  readonly labels: readonly ShownColumn[];
  readonly figures: readonly ShownColumn[];
}

export function shownColumns(head: TableHead): ShownColumns {
  const spanned = spannedColumns(head);
  const columns = head.columns
    .map((column, at): ShownColumn => ({
      ...column,
      at,
      under: spanned.has(at),
      ...(spanned.has(at) ? wordsUnder(column) : wordsOf(column, head)),
    }))
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

/** Words over neighbouring columns, and over how many; without words over those that have none in common. */
export interface HeadSpan {
  readonly words: string;
  readonly columns: number;
}

/**
 * What stands over columns that have it in common: the group across, or the condition. Empty where no
 * two neighbours do.
 */
export function headSpans(figures: readonly ShownColumn[]): readonly HeadSpan[] {
  const spans: HeadSpan[] = [];
  for (let k = 0; k < figures.length;) {
    const columns = runFrom(figures, k);
    // A page may end within a span: what stands over its last column is said there too.
    spans.push({ words: figures[k].under ? capital(figures[k].over) : '', columns });
    k += columns;
  }
  return spans.some(({ words }) => words !== '') ? spans : [];
}

/** How many neighbours from a place on have the same over them; 1 without any. */
function runFrom(columns: readonly TableColumn[], from: number): number {
  const { over } = columns[from];
  let to = from + 1;
  while (over !== '' && to < columns.length && columns[to].over === over) to++;
  return to - from;
}

/** Places of the columns that share what stands over them with a neighbour. */
function spannedColumns({ columns, labels }: TableHead): ReadonlySet<number> {
  const found = new Set<number>();
  for (let k = labels; k < columns.length;) {
    const run = runFrom(columns, k);
    if (run > 1) for (let n = 0; n < run; n++) found.add(k + n);
    k += run;
  }
  return found;
}

/** Short words for a head: what it is of, then the measure and its unit in small. */
function wordsOf(column: TableColumn, head: TableHead): { words: string; sub: string } {
  const { title, unit, measure, of, over, key } = column;
  const [first, ...rest] = title.split(' › ');
  if (rest.length) return { words: first, sub: small(measure || rest.join(' › '), unit) };
  if (over) return { words: capital(over), sub: small(withoutOver(column), unit) };
  if (of) return { words: of, sub: small(measure, unit) };
  // What follows from a measure is said without saying the measure again.
  const main = head.columns.find((c) => key.startsWith(`${c.key}.`));
  const own =
    main && title.startsWith(`${main.title}, `) ? title.slice(main.title.length + 2) : title;
  return { words: capital(own), sub: unit };
}

/** The same where what it has in common with its neighbours stands over them all. */
function wordsUnder(column: TableColumn): { words: string; sub: string } {
  const { unit, measure, of } = column;
  const own = withoutOver(column).split(' › ');
  const phrase = own[own.length - 1];
  if (own.length > 1) return { words: own.slice(0, -1).join(' › '), sub: small(phrase, unit) };
  return of ? { words: of, sub: small(measure, unit) } : { words: capital(phrase), sub: unit };
}

/** Its title without what stands over it. */
const withoutOver = ({ title, over }: TableColumn): string =>
  title.startsWith(`${over} › `)
    ? title.slice(over.length + 3)
    : title.slice(0, title.length - ` where ${over}`.length);

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

const small = (words: string, unit: string): string => [words, unit].filter(Boolean).join(', ');
