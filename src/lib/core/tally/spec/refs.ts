import { leavesOf, type Condition } from '../../selection/condition';
import { kindOf } from '../kind/kinds';
import type { Tally } from './specs';
import type { SpecVisitor } from './visit';

/** Something a tally uses, and where. */
export interface Ref<T> {
  readonly path: string;
  readonly to: T;
}

/** What a tally uses of its list, and which other lists. */
export interface Refs {
  /** Columns by name or id, and expressions. */
  readonly columns: readonly Ref<string>[];
  readonly conditions: readonly Ref<Condition>[];
  readonly lists: readonly Ref<string>[];
}

/**
 * Everything a tally uses.
 * @example refs(tally).lists.map((ref) => ref.to) // the other lists it needs
 */
export function refs(tally: Tally, path = ''): Refs {
  const columns: Ref<string>[] = [];
  const conditions: Ref<Condition>[] = [];
  const lists: Ref<string>[] = [];
  const listsIn = (condition: Condition, at: string): void => {
    for (const { test } of leavesOf(condition))
      if (test.test === 'listed') lists.push({ path: at, to: test.list });
  };
  const lookOnly: SpecVisitor = {
    key(key, at) {
      if (key.bands?.by === 'list') lists.push({ path: `${at}.bands.list`, to: key.bands.list });
      return key;
    },
    condition(condition, at) {
      listsIn(condition, at);
      return condition;
    },
  };
  kindOf(tally).visit(
    {
      key(key, at) {
        columns.push({ path: `${at}.column`, to: key.column });
        return lookOnly.key?.(key, at) ?? key;
      },
      sort(key, at) {
        columns.push({ path: `${at}.column`, to: key.column });
        return key;
      },
      measure(measure, at) {
        if (measure.column !== undefined)
          columns.push({ path: `${at}.column`, to: measure.column });
        if (measure.other !== undefined) columns.push({ path: `${at}.other`, to: measure.other });
        return measure;
      },
      condition(condition, at) {
        conditions.push({ path: at, to: condition });
        listsIn(condition, at);
        return condition;
      },
      column(ref, at) {
        columns.push({ path: at, to: ref });
        return ref;
      },
      list: (name, at) => void lists.push({ path: at, to: name }),
      ofGroups: lookOnly,
    },
    path,
  );
  return { columns, conditions, lists };
}
