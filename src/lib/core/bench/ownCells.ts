import { madePlace } from './madeEdits';
import type { Bench } from './document';

/**
 * Why a cell cannot be put right where it stands; empty where it can: only cells of the list itself
 * are read from a file.
 */
export function notOwn(doc: Bench, column: string): string {
  if (doc.reshape.length)
    return 'These records are stacked from the list: put cells right in a bench of the list itself.';
  switch (madePlace(doc, column)?.of) {
    case 'computed':
      return 'This column is made: change how it is made, or the cells it is made of.';
    case 'joins':
      return 'This column comes from another list: put the cell right there.';
    default:
      return '';
  }
}
