import type { Bench } from './document';

/**
 * Why a cell cannot be put right where it stands; empty where it can: only cells of the list itself
 * are read from a file.
 */
export function notOwn(doc: Bench, column: string): string {
  if (doc.reshape.length)
    return 'These records are stacked from the list: put cells right in a bench of the list itself.';
  if (doc.computed.some((c) => (c.id ?? c.name) === column))
    return 'This column is made: change how it is made, or the cells it is made of.';
  if (doc.joins.some((j) => j.bring.some((b) => (b.as ?? b.column) === column)))
    return 'This column comes from another list: put the cell right there.';
  return '';
}
