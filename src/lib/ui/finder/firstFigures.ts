import type { Sketch } from '../../engine/protocol';
import { levelLabel } from '../tally/cells';
import { shownColumns } from '../tally/columns';

/** What stands first in a tally that may be begun: a row's label and its figure. */
export interface FirstFigure {
  readonly label: string;
  readonly figure: string;
}

/** Figures that one line can show. */
const MOST = 5;

/** The first figures of a tally in small: of each of the first rows what is asked for, the count of records last. */
export function firstFigures({ table, rows }: Sketch): FirstFigure[] {
  if (!table) return [];
  const { figures } = shownColumns(table);
  const asked = figures.find(({ key }) => /^(?:m|c|f)\d+$|^value$/.test(key)) ?? figures[0];
  const own = figures.filter(({ key }) => /^m\d+$/.test(key)).at(-1) ?? asked;
  if (!own) return [];
  return rows.slice(0, MOST).map((row) => ({
    label: levelLabel(table, row),
    figure: row.cells[own.at],
  }));
}
