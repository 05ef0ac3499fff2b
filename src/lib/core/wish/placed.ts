import { MEASURES } from '../measure/measure';
import type { Condition } from '../selection/condition';
import type { Column } from '../table/column';
import type { Part, PartOf, Phrase, Role } from './phrase';

/** A column that a wish names, and what for. */
export interface Placed {
  readonly column: Column;
  readonly role: Role;
  /** Measures named before it since the column before. */
  readonly kinds: readonly PartOf<'measure'>[];
  /** What it stands to the column before. */
  readonly op: 'ratio' | 'difference' | null;
  /** Whether “per” stands before it. */
  readonly per: boolean;
}

export const isNumber = ({ column }: Placed): boolean => column.type === 'number';

/** A column that no number is, and that a measure is of all the same: the latest day, distinct names. */
export const isMeasured = ({ column, kinds, role }: Placed): boolean =>
  role === 'what' &&
  column.type !== 'number' &&
  kinds.some(({ kind }) => kind !== 'records' && MEASURES[kind].types.includes(column.type));

/** The columns that are named, each for what; and the measures behind the last, which no column follows. */
export function placesOf(
  phrases: readonly Phrase[],
  columns: readonly Column[],
): { placed: Placed[]; loose: PartOf<'measure'>[]; perRecord: boolean } {
  const placed: Placed[] = [];
  let role: Role = 'what';
  let kinds: PartOf<'measure'>[] = [];
  let op: Placed['op'] = null;
  let per = false;
  let perRecord = false;
  let before: Part | null = null;
  for (const { part } of phrases) {
    // “by technician starts with b”: the groups as well as what narrows them.
    const grouped =
      before?.is === 'role' && part.is === 'narrow' && part.condition.kind === 'leaf'
        ? part.condition.column
        : null;
    const own = columns.find(({ id }) => id === grouped);
    if (own && !placed.some((p) => p.column === own))
      placed.push({ column: own, role, kinds: [], op: null, per: false });
    before = part;
    if (part.is === 'role') role = part.role;
    else if (part.is === 'across') role = 'by';
    else if (part.is === 'measure') {
      kinds.push(part);
      // “by vessel, mean delay”: another figure begins.
      if (role === 'by' && placed.some((p) => p.role === 'by')) role = 'what';
    } else if (part.is === 'between') op = part.op;
    else if (part.is === 'where' || part.is === 'ahead') role = 'what';
    else if (part.is === 'records') perRecord ||= per;
    else if (part.is === 'column') {
      const column = columns.find(({ id }) => id === part.column);
      if (!column || placed.some((p) => p.column === column)) continue;
      // “average … by vessel”: the measure is of what comes later, or of what a condition is on.
      const measured = role === 'what' || column.type === 'number';
      placed.push({ column, role, kinds: measured ? kinds : [], op, per });
      if (measured) kinds = [];
      if (placed.length > 1) op = null;
    }
    if (part.is !== 'small') per = part.is === 'role' && part.per === true;
  }
  return { placed, loose: kinds, perRecord };
}

/** “delay over 10 by vessel”: where nothing else is named that figures could be of, they are of the delays. */
export function withSubject(
  placed: Placed[],
  parts: readonly Part[],
  narrow: readonly Condition[],
  columns: readonly Column[],
): Placed[] {
  const counts = parts.some(
    (part) => part.is === 'records' || (part.is === 'measure' && part.kind === 'records'),
  );
  if (counts || placed.some(({ column }) => column.type === 'number')) return placed;
  const column = columns.find(
    ({ id, type }) =>
      type === 'number' && narrow.some((own) => own.kind === 'leaf' && own.column === id),
  );
  const first = narrow.length > 0 && column && placed.every((p) => p.role !== 'what');
  return first ? [...placed, { column, role: 'what', kinds: [], op: null, per: false }] : placed;
}
