import type { GroupTree } from '../../core/arrange/tree';
import { showCell } from '../../core/table/cell';
import { isText, type Column } from '../../core/table/column';
import { showCount } from '../../core/table/format';

/** Pixels for a character of the ledger, of its bold lines, of its small print. */
const CHARACTER = 7.3;
const BOLD = 7.6;
const SMALL = 6.3;
/** Pixels around a cell; before each level of groups; for the turning mark and its gaps. */
const AROUND = 20;
const INDENT = 20;
const MARK = 26;
const SAMPLED = 200;

/** What was found of columns, for as long as they are there: a ledger is laid out at every change. */
const longestCells = new WeakMap<Column, number>();

function longestCell(column: Column): number {
  let longest = longestCells.get(column);
  if (longest === undefined) longestCells.set(column, (longest = longestOf(column)));
  return longest;
}

/** Characters of the longest of a few cells, even over the list; long text is cut at 26. */
function longestOf(column: Column): number {
  let longest = 4;
  if (isText(column))
    for (const text of column.dictionary.slice(0, SAMPLED))
      longest = Math.max(longest, text.length);
  else {
    const stride = Math.max(1, Math.floor(column.values.length / SAMPLED));
    for (let i = 0; i < column.values.length; i += stride)
      longest = Math.max(longest, showCell(column, i).length);
  }
  return Math.min(26, longest);
}

/**
 * The width a column has until the analyst changes it, in pixels: that of its head, what stands
 * below it, its cells and its figures.
 * @param column undefined: the measure is of no column
 * @param below what its measure says under its name; '' without a measure
 * @param figure the measure's grand total as shown; '' without a measure
 */
export function usualWidth(
  column: Column | undefined,
  below: string,
  cells: boolean,
  figure: string,
): number {
  const name = column ? column.name.length : 7;
  const under = below && column ? [below, column.unit].filter(Boolean) : [];
  const characters = Math.max(
    Math.min(name, 24),
    figure.length * 1.05,
    cells && column ? longestCell(column) : 0,
  );
  const small = Math.min(under.join(', ').length, 26) * SMALL;
  return Math.max(60, Math.round(Math.max(characters * CHARACTER, small)) + AROUND);
}

/**
 * The width of the column of groups until the analyst changes it, in pixels: room for the longest of
 * the first labels of each level with its number of records, for its head, and for the labels at the foot, within
 * 160 to 320.
 * @param counted records at the foot
 */
export function usualGroupWidth(
  tree: GroupTree,
  naming: Column | undefined,
  counted: number,
): number {
  const count = showCount(tree.leafOf.length).length * SMALL + 6;
  const foot = `Grand total, ${showCount(counted)} counted`;
  const head = naming ? `Group and ${naming.name}` : '';
  let widest = Math.max(160, AROUND + 6 + Math.max(foot.length, head.length) * BOLD);
  tree.levels.forEach(({ size, code }, level) => {
    for (let g = 0; g < Math.min(size, SAMPLED); g++) {
      const label = tree.keys[level].label(code[g]).length * BOLD;
      widest = Math.max(widest, 24 + level * INDENT + MARK + label + count);
    }
  });
  const deepest = 24 + tree.levels.length * INDENT;
  if (naming) widest = Math.max(widest, deepest + longestCell(naming) * CHARACTER);
  return Math.round(Math.min(320, widest));
}
