import { expressionIn } from '../expression/reference';
import { SINGLE } from '../measure/compute';
import { isFromMoments, needsSquares } from '../measure/fromMoments';
import { MEASURES, type Measure, type MeasureKind } from '../measure/measure';
import { columnsAsked } from '../selection/condition';
import { isNumeric } from '../table/column';
import { findColumn, type Table } from '../table/table';
import { kindOf } from '../tally/kind/kinds';
import type { Tally } from '../tally/spec/specs';
import type { Roles } from './condense';

/** What some tallies need of a list's columns, or why they need the list as a whole. */
export type Needed = { readonly roles: Roles } | { readonly whole: string };

/** Measures that partial aggregates are enough for, besides those that follow from moments. */
const ENOUGH: readonly MeasureKind[] = [
  'records',
  'recordsOfTotal',
  'recordsOfParent',
  'shareOfTotal',
  'shareOfParent',
  'ratio',
  'difference',
  'blanks',
  'unread',
];

/**
 * The columns that tallies need, each in the lightest way: added up, or with its values kept.
 * @param table a part of the list, as the question prepares it
 * @example rolesOf([{ kind: 'ledger', groups: [{ column: 'depot' }], measures: [{ kind: 'sum', column: 'fee' }], … }], part)
 * // { roles: { kept: ['depot'], summed: ['fee'] } }
 */
export function rolesOf(tallies: readonly Tally[], table: Table): Needed {
  const kept = new Set<string>();
  const summed = new Set<string>();
  const squared = new Set<string>();
  let whole = '';
  const keep = (ref: string): void => {
    const column = expressionIn(ref) === null ? findColumn(table.columns, ref) : null;
    if (column) kept.add(column.id);
    else whole ||= `“${ref}” is worked out where it is used`;
  };
  const measured = (measure: Measure): void => {
    const { kind, column: ref, other } = measure;
    if (ref === undefined) return;
    const column = expressionIn(ref) === null ? findColumn(table.columns, ref) : null;
    const light = ENOUGH.includes(kind) || isFromMoments(kind);
    if (column && light && isNumeric(column)) {
      summed.add(column.id);
      if (needsSquares(kind)) squared.add(column.id);
    } else if (!SINGLE.includes(kind)) keep(ref);
    else whole ||= `the ${MEASURES[kind].words} looks at single records`;
    if (other !== undefined && light) measured({ kind: 'sum', column: other });
  };
  for (const tally of tallies) {
    const kind = kindOf(tally);
    if (!kind.inParts) {
      whole ||= 'this kind of tally looks at single records';
      continue;
    }
    kind.visit(
      {
        key(key) {
          keep(key.column);
          return key;
        },
        sort(key) {
          whole ||= 'records are put in an order';
          return key;
        },
        measure(measure) {
          measured(measure);
          return measure;
        },
        condition(condition) {
          columnsAsked(condition).forEach(keep);
          return condition;
        },
        column(ref) {
          keep(ref);
          return ref;
        },
        list(name) {
          whole ||= `it looks at the list “${name}”`;
        },
      },
      '',
    );
  }
  if (whole) return { whole };
  const added = [...summed].filter((id) => !kept.has(id));
  return {
    roles: { kept: [...kept], summed: added, squared: added.filter((id) => squared.has(id)) },
  };
}
