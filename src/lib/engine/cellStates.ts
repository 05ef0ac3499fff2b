import { z } from 'zod';

/** What a cell on the page is, and the letter that says so in a line's word of states. */
export const CELL_STATES = {
  read: '.',
  blank: 'b',
  unread: 'u',
  corrected: 'c',
  /** A figure that does not exist. */
  none: 'n',
  /** A figure that one record carries. */
  rests: 'r',
} as const;
export type CellState = keyof typeof CELL_STATES;

export const CellStateName = z.enum(['read', 'blank', 'unread', 'corrected', 'none', 'rests']);

/** One letter for each cell: a page checks a line in one look, not one for each cell. */
export const States = z.string().regex(/^[.bucnr]*$/);

const NAMES: Readonly<Record<string, CellState>> = Object.fromEntries(
  CellStateName.options.map((name) => [CELL_STATES[name], name]),
);

/** The state of a cell; a line without cells has none but read ones. */
export const stateAt = (states: string, cell: number): CellState => NAMES[states[cell]] ?? 'read';

export const statesOf = (states: readonly CellState[]): string =>
  states.map((state) => CELL_STATES[state]).join('');
