import type { Task } from '../../../task/task';
import type { AnswerTable } from '../../answer/answer';
import { compareTables, rowWords } from '../../answer/compareTables';
import type { MovedRecords } from './trace';

/** A figure of two readings, and what its records meet. */
export interface FigureDifference extends MovedRecords {
  readonly where: string;
  readonly title: string;
  /** None where one of the two is none, or a text. */
  readonly difference: number | null;
  /** Whether it differs by more than rounding. */
  readonly moved: boolean;
}

/**
 * Adds the figures of two tables that are not the same; rows and columns that only the older one has
 * come last.
 * @param unmoved those that are the same too
 */
export function* addDifferences(
  to: FigureDifference[],
  now: AnswerTable,
  then: AnswerTable,
  unmoved: boolean,
): Task<void> {
  yield* compareTables(then, now, ({ then: a, now: b, figures }) => {
    const row = b ?? a;
    if (!row) return;
    const where = rowWords(now, row) || 'All';
    for (const { column, before, after, moved } of figures) {
      if (!moved && !unmoved) continue;
      to.push({
        where,
        title: column.title,
        before,
        after,
        difference:
          typeof before === 'number' && typeof after === 'number'
            ? moved
              ? after - before
              : 0
            : null,
        moved,
        rowWhere: row.where,
        columnWhere: column.where,
        measure: column.measure,
      });
    }
  });
}
