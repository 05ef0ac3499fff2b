import type { GroupKey } from '../../arrange/groupKey';
import type { SortKey } from '../../arrange/sortKey';
import type { Measure } from '../../measure/measure';
import type { Condition } from '../../selection/condition';

/**
 * Looks at every part of a spec, and may put another in its place (or null: out). A kind writes the
 * way through its spec once (`TallyKind.visit`); what the columns are, which lists are needed, and
 * what no longer fits is all found by that one way. A part without a function here stays as it is.
 */
export interface SpecVisitor {
  key?(key: GroupKey, path: string): GroupKey | null;
  sort?(key: SortKey, path: string): SortKey | null;
  measure?(measure: Measure, path: string): Measure | null;
  condition?(condition: Condition, path: string): Condition | null;
  /** A column that is named as such; it cannot be taken out where the kind needs it. */
  column?(ref: string, path: string): string | null;
  /** Another list that is named as such. */
  list?(name: string, path: string): void;
  /** What visits specs over the results of groups, whose columns are not the list's. */
  readonly ofGroups?: SpecVisitor;
}

/** Visits the members of a list; those that come back as null are left out. */
export const visitAll = <T>(
  items: readonly T[],
  visit: ((item: T, path: string) => T | null) | undefined,
  path: string,
): T[] =>
  visit
    ? items.flatMap((item, k) => {
        const kept = visit(item, `${path}[${k}]`);
        return kept === null ? [] : [kept];
      })
    : [...items];

/** Visits a part that must stay: null leaves it as it was. */
export const visitNeeded = <T>(
  item: T,
  visit: ((item: T, path: string) => T | null) | undefined,
  path: string,
): T => visit?.(item, path) ?? item;

/** Visits a part that may be missing. */
export const visitOptional = <T>(
  item: T | undefined,
  visit: ((item: T, path: string) => T | null) | undefined,
  path: string,
): T | undefined => (item === undefined || !visit ? item : (visit(item, path) ?? undefined));

/** Measures, and where each of the old ones stands among those kept; -1: taken out. */
export function visitMeasures(
  measures: readonly Measure[],
  visitor: SpecVisitor,
  path: string,
): { kept: Measure[]; places: number[] } {
  const kept: Measure[] = [];
  const places = measures.map((measure, k) => {
    const next = visitor.measure ? visitor.measure(measure, `${path}[${k}]`) : measure;
    return next === null ? -1 : kept.push(next) - 1;
  });
  return { kept, places };
}

/** A key whose order by a measure follows that measure, or falls back to its labels. */
export function withOrderMoved(key: GroupKey, places: readonly number[]): GroupKey {
  if (key.order.by !== 'measure') return key;
  const measure = places[key.order.measure] ?? key.order.measure;
  if (measure === key.order.measure) return key;
  return {
    ...key,
    order: measure < 0 ? { by: 'label', descending: false } : { ...key.order, measure },
  };
}
