import { looseForm } from '../../../arrange/groupCodes';
import type { Condition } from '../../../selection/condition';
import type { SideFigure, SideFigures, SideGroup } from '../../groups/sideFigures';
import type { Figure } from '../../answer/result';

/** A group of one list or of both. */
export interface Pair {
  readonly path: readonly string[];
  readonly keys: readonly Figure[];
  /** What its records meet in each list; null where it has none there. */
  readonly hereWhere: Condition | null;
  readonly thereWhere: Condition | null;
  readonly here: SideFigure | null;
  readonly there: SideFigure | null;
  /** Whether this list has records of it of which none counts. */
  readonly uncounted: boolean;
}

/** Groups of both lists by their keys, and how many met only but for case and spaces. */
export interface Pairs {
  readonly pairs: Pair[];
  readonly loosely: number;
}

/**
 * Brings the groups of two lists together: by equal keys, then those that are left by keys that differ
 * in case and spaces alone, where each form stands once on either side.
 */
export function pairsOf(here: SideFigures, there: SideFigures): Pairs {
  const pairs: Pair[] = [];
  const leftThere = new Map(there.groups);
  const leftHere: [string, SideGroup][] = [];
  for (const [name, own] of here.groups) {
    const other = leftThere.get(name);
    leftThere.delete(name);
    if (other) pairs.push(pairOf(own, other, false));
    else leftHere.push([name, own]);
  }
  const forms = onceEach([...leftThere].map(([name, group]) => [looseName(group), name] as const));
  const ownForms = onceEach(leftHere.map(([name, group]) => [looseName(group), name] as const));
  let loosely = 0;
  for (const [name, own] of leftHere) {
    const form = looseName(own);
    const met = ownForms.get(form) === name ? forms.get(form) : undefined;
    const other = met === undefined ? undefined : leftThere.get(met);
    if (met !== undefined) leftThere.delete(met);
    if (other) loosely++;
    pairs.push(pairOf(own, other ?? null, false));
  }
  for (const [name, other] of leftThere) pairs.push(pairOf(null, other, here.without.has(name)));
  return { pairs, loosely };
}

function pairOf(here: SideGroup | null, there: SideGroup | null, uncounted: boolean): Pair {
  const named = here ?? there;
  return {
    path: named?.path ?? [],
    keys: named?.keys ?? [],
    hereWhere: here?.where ?? null,
    thereWhere: there?.where ?? null,
    here: here?.side ?? null,
    there: there?.side ?? null,
    uncounted,
  };
}

const looseName = ({ keys }: SideGroup): string =>
  JSON.stringify(keys.map((key) => (typeof key === 'string' ? looseForm(key) : key)));

/** Forms that stand once, with what they stand for. */
function onceEach(entries: readonly (readonly [string, string])[]): Map<string, string> {
  const once = new Map<string, string>();
  const twice = new Set<string>();
  for (const [form, name] of entries) {
    if (once.has(form)) twice.add(form);
    once.set(form, name);
  }
  for (const form of twice) once.delete(form);
  return once;
}
