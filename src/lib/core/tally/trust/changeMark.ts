import { recordNumber } from '../../table/recordNumber';
import type { Table } from '../../table/table';
import { figureText } from '../answer/figureText';
import { LEAST_VALUES, influentialRecord, type Influence } from './influence';
import { figureOf, relativeChange, type FigureColumn, type Mark } from '../answer/result';

/** A change from one figure to another, with what both rest on. */
export interface Change {
  readonly before: number;
  readonly after: number;
  readonly ofBefore: Influence | null;
  readonly ofAfter: Influence | null;
}

/** Taking away so much of a change is as much as turning its sign. */
const MUCH_OF_CHANGE = 1 / 2;

/**
 * Marks a change that one record makes: without it the change would turn its sign, or be less than
 * half of what it is.
 * @param of the column of the figures that are compared
 * @param column where the change stands: as a difference, or relative (`share`)
 * @param how what stands there, from the two figures
 */
export function changeMark(
  table: Table,
  of: FigureColumn,
  column: FigureColumn,
  place: number,
  { before, after, ofBefore, ofAfter }: Change,
  how = (a: number, b: number): number => (column.type === 'share' ? relativeChange(a, b) : b - a),
): Mark[] {
  const change = after - before;
  const found = [
    ...(ofAfter ? [{ rests: ofAfter, a: before, b: ofAfter.without }] : []),
    ...(ofBefore ? [{ rests: ofBefore, a: ofBefore.without, b: after }] : []),
  ].filter(
    ({ rests, a, b }) =>
      rests.values >= LEAST_VALUES && (b - a) / change < MUCH_OF_CHANGE && change !== 0,
  );
  // Of two such records the one that takes more of it away.
  const [most] = found.sort((x, y) => (x.b - x.a) / change - (y.b - y.a) / change);
  if (!most) return [];
  const without = how(most.a, most.b);
  return [
    {
      column: place,
      kind: 'rests',
      words: `Rests on ${influentialRecord(table, of, most.rests)}: ${figureText(column, figureOf(without))} without it.`,
      record: recordNumber(most.rests.record),
      without: figureOf(without),
    },
  ];
}
