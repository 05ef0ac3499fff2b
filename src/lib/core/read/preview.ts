import { isMissing, isUnread } from '../table/column';
import { showCell } from '../table/cell';
import { DelimitedReader } from './delimited';
import type { Table } from '../table/table';
import type { Recipe } from './recipe';

/** A cell of the first records as a recipe reads it. */
export interface PreviewCell {
  readonly text: string;
  readonly state: 'read' | 'blank' | 'unread';
}

/** The first records as the recipe reads them; what the text holds past them does not matter here. */
export function previewOf(recipe: Recipe, head: Uint8Array, most: number): PreviewCell[][] {
  const reader = new DelimitedReader(recipe);
  try {
    reader.push(head, true);
  } catch {
    return [];
  }
  return previewOfTable(reader.finish().table, most);
}

/** The first records of a table. */
export function previewOfTable(table: Table, most: number): PreviewCell[][] {
  return Array.from({ length: Math.min(most, table.length) }, (_, i) =>
    table.columns.map((column): PreviewCell => {
      if (isUnread(column, i)) return { text: showCell(column, i).slice(0, 200), state: 'unread' };
      if (isMissing(column, i)) return { text: 'blank', state: 'blank' };
      return { text: showCell(column, i).slice(0, 200), state: 'read' };
    }),
  );
}
