import type { ColumnRecipe, Recipe } from './recipe';
import { typeName } from '../table/column';

/** A difference between a list and a new file for it; each waits for the analyst's decision. */
export type Difference =
  | { readonly kind: 'missing'; readonly column: ColumnRecipe }
  | { readonly kind: 'new'; readonly column: ColumnRecipe }
  | { readonly kind: 'type'; readonly column: ColumnRecipe; readonly before: ColumnRecipe };

/** What was decided: keep as the list has it (true), or follow the new file (false). */
export type Decisions = ReadonlyMap<string, boolean>;

/** Names a difference among the decisions. */
export const differenceKey = (d: Difference): string => `${d.kind}/${d.column.id}`;

/** A heading as two files would both write it. */
const headForm = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * Reads a new file by the list's recipe: layout from the file, columns as they were, matched by
 * their headings (by place where there is no header).
 */
export function matchRecipe(
  file: Recipe,
  list: Recipe,
): { recipe: Recipe; differences: Difference[] } {
  const taken = new Set<number>();
  const differences: Difference[] = [];
  const columns = list.columns.map((old): ColumnRecipe => {
    const isSame = (c: ColumnRecipe, k: number): boolean =>
      !taken.has(k) &&
      (file.header ? headForm(c.source) === headForm(old.source) : c.at === old.at);
    // Of several with one heading, or none, the one at its place.
    const inPlace = file.columns.findIndex((c, k) => c.at === old.at && isSame(c, k));
    const at = inPlace >= 0 ? inPlace : file.columns.findIndex(isSame);
    if (at < 0) {
      const gone = { ...old, at: null };
      differences.push({ kind: 'missing', column: gone });
      return gone;
    }
    taken.add(at);
    const found = file.columns[at];
    const same = { ...old, at: found.at };
    if (found.type !== old.type)
      differences.push({
        kind: 'type',
        column: { ...found, id: old.id, name: old.name },
        before: same,
      });
    return same;
  });
  const ids = new Set(columns.map((c) => c.id));
  file.columns.forEach((column, k) => {
    if (taken.has(k)) return;
    let { id } = column;
    for (let n = 2; ids.has(id); n++) id = `${column.id}_${n}`;
    ids.add(id);
    differences.push({ kind: 'new', column: { ...column, id } });
  });
  // What was decided about totals inside the list holds for this file too.
  const { totals } = list;
  return { recipe: { ...file, ...(totals && { totals }), columns }, differences };
}

/** A file of which a recipe can be asked: found by itself, or under a layout that is given. */
interface Readable {
  propose(): Recipe;
  under(layout: Recipe): Recipe;
}

/**
 * How a new file of a list is cut into cells, with all of its columns: as the list's last one was, what was set by
 * hand with it, where all headings of the list are found so; else as the file shows by itself. Its encoding and
 * notes below the table are found anew in each file.
 * @throws IntakeError
 */
export function layoutAtRefresh(file: Readable, list: Recipe): Recipe {
  const found = file.propose();
  if (found.source?.form && found.source.form !== list.source?.form) return found;
  const { notesBelow: _, ...layout } = list;
  // No heading tells how a file is encoded: it does so itself.
  const { encoding } = found;
  const asBefore = file.under({
    ...layout,
    encoding,
    ...(found.source && { source: found.source }),
  });
  const missing = matchRecipe(asBefore, list).differences.some(({ kind }) => kind === 'missing');
  const wasMissing = matchRecipe(found, list).differences.some(({ kind }) => kind === 'missing');
  return missing && !(wasMissing && asBefore.width === list.width) ? found : asBefore;
}

/** The recipe once everything is decided. */
export function decide(
  recipe: Recipe,
  differences: readonly Difference[],
  decisions: Decisions,
): Recipe {
  let columns = [...recipe.columns];
  for (const d of differences) {
    const keep = decisions.get(differenceKey(d));
    if (keep === undefined) continue;
    if (d.kind === 'missing' && !keep) columns = columns.filter((c) => c.id !== d.column.id);
    if (d.kind === 'type' && !keep)
      columns = columns.map((c) => (c.id === d.column.id ? d.column : c));
    if (d.kind === 'new' && !keep && !columns.some((c) => c.id === d.column.id))
      columns = [...columns, d.column];
  }
  return { ...recipe, columns };
}

/** What is to be decided, in words, with the two answers, and what happens where the file is added to the list. */
export function differenceWords(d: Difference): {
  asks: string;
  keep: string;
  follow: string;
  added: string;
} {
  switch (d.kind) {
    case 'missing':
      return {
        asks: `${d.column.name} is not in the new file.`,
        keep: 'Keep the column, all blank',
        follow: 'Let the column go',
        added: 'It is blank in the records that are added.',
      };
    case 'new':
      return {
        asks: `${d.column.name} (${typeName[d.column.type]}) is new.`,
        keep: 'Leave it out',
        follow: 'Take it in',
        added: 'It is left out; to take it in, refresh the list with all of its files.',
      };
    case 'type':
      return {
        asks: `${d.column.name} was read as ${typeName[d.before.type]}; the new file looks like ${typeName[d.column.type]}.`,
        keep: `Read it as ${typeName[d.before.type]} still`,
        follow: `Read it as ${typeName[d.column.type]} now`,
        added: `It is read as ${typeName[d.before.type]} still; what cannot be is unread, and a doubt below.`,
      };
  }
}
