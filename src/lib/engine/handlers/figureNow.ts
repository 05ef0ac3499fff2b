import { NoSuchFigure, EngineError } from '../../core/errors';
import type { Task } from '../../core/task/task';
import { keysOfRow } from '../../core/tally/answer/answer';
import { findFigure } from '../../core/tally/answer/findFigure';
import type { Figure, FigureColumn, FigurePlace, ScopeName } from '../../core/tally/answer/result';
import type { Session } from '../session';

/** A figure that is kept by its place. */
export interface KeptFigure {
  readonly tally: string;
  readonly place: FigurePlace;
  readonly scope?: ScopeName | undefined;
}

/** Where a kept figure stands now, and what it is. */
export interface FigureNow {
  /** A place in a ranking may be another than it was. */
  readonly place: FigurePlace;
  /** Its row in words. */
  readonly where: string;
  readonly column: FigureColumn;
  readonly figure: Figure;
}

/** A figure that is kept, as it is now; else why there is none. */
export function* figureNow(
  session: Session,
  { tally, place, scope }: KeptFigure,
): Task<FigureNow | { readonly lost: string }> {
  try {
    const { answer, refused } = yield* session.answer(tally, scope);
    if (!answer) return { lost: refused || 'Its tally has no figures.' };
    const { row, column, at, table } = yield* findFigure(answer, place);
    const labels = row.cells.slice(0, table.labels).filter((label) => label !== null);
    return {
      place:
        typeof place.row === 'number'
          ? place
          : { ...place, row: [...keysOfRow(row, table.labels)] },
      where: labels.join(' › '),
      column,
      figure: row.cells[at],
    };
  } catch (error) {
    if (error instanceof NoSuchFigure) return { lost: 'Its row or column is no longer there.' };
    if (error instanceof EngineError && error.code === 'noTally')
      return { lost: 'Its tally is no longer in the tray.' };
    throw error;
  }
}
