import { expressionIn } from '../../expression/reference';
import type { Measure } from '../../measure/measure';
import type { Condition } from '../../selection/condition';
import type { Column } from '../../table/column';
import { findColumn } from '../../table/table';
import type { Formats } from './formats';
import { kindOf } from '../kind/kinds';
import type { Tally } from './specs';

/** The id of the column that a reference means; expressions and what means none stay as they are. */
export function idOf(columns: readonly Column[], ref: string): string {
  return expressionIn(ref) === null ? (findColumn(columns, ref)?.id ?? ref) : ref;
}

/** A measure whose columns are named by their ids. */
export const measureWithIds = (columns: readonly Column[], measure: Measure): Measure => ({
  ...measure,
  ...(measure.column !== undefined && { column: idOf(columns, measure.column) }),
  ...(measure.other !== undefined && { other: idOf(columns, measure.other) }),
});

/** A condition whose columns are named by their ids. */
export function conditionWithIds(columns: readonly Column[], condition: Condition): Condition {
  switch (condition.kind) {
    case 'leaf':
      return { ...condition, column: idOf(columns, condition.column) };
    case 'expression':
    case 'records':
      return condition;
    default:
      return {
        ...condition,
        parts: condition.parts.map((part) => conditionWithIds(columns, part)),
      };
  }
}

/**
 * A tally whose columns are named by their ids, whatever they were named by: done once where a tally
 * meets its list, so that nothing after it compares names.
 */
export const withIds = (tally: Tally, columns: readonly Column[]): Tally =>
  kindOf(tally).visit(
    {
      key: (key) => ({ ...key, column: idOf(columns, key.column) }),
      sort: (key) => ({ ...key, column: idOf(columns, key.column) }),
      measure: (measure) => measureWithIds(columns, measure),
      condition: (condition) => conditionWithIds(columns, condition),
      column: (ref) => idOf(columns, ref),
    },
    '',
  );

/** Formats by the ids of columns, whatever the columns were named by. */
export const formatsWithIds = (formats: Formats, columns: readonly Column[]): Formats =>
  Object.fromEntries(
    Object.entries(formats).map(([key, format]) => {
      // `fares`, or `fares:mean`: a name may hold a colon itself.
      const at = findColumn(columns, key) ? -1 : key.lastIndexOf(':');
      return at < 0
        ? [idOf(columns, key), format]
        : [idOf(columns, key.slice(0, at)) + key.slice(at), format];
    }),
  );
