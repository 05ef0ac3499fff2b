import {
  broughtAs,
  idOfBrought,
  idOfComputed,
  type ComputedSpec,
  type JoinSpec,
} from '../prepare/specs';
import type { ListSource } from '../ask/question';
import type { Bench } from './document';

/** Which made column, or columns from another list, of a bench: by its place. */
export interface MadePlace {
  readonly of: 'computed' | 'joins';
  readonly at: number;
}

/** How a column of a bench is made; null where it is the list's own. */
export function madePlace(doc: Bench, column: string): MadePlace | null {
  const at = doc.computed.findIndex((spec) => idOfComputed(spec) === column);
  if (at >= 0) return { of: 'computed', at };
  const join = doc.joins.findIndex((j) => j.bring.some((b) => idOfBrought(b) === column));
  return join >= 0 ? { of: 'joins', at: join } : null;
}

/** Puts a computed column in, or in the place of another; renamed, the rest finds it as before. */
export function setComputed(doc: Bench, at: number | null, spec: ComputedSpec): Bench {
  if (at === null) return { ...doc, computed: [...doc.computed, spec] };
  const before = doc.computed[at];
  const id = idOfComputed(before);
  const { id: _, ...rest } = spec;
  const now = rest.name === id ? rest : { ...rest, id };
  return { ...doc, computed: doc.computed.map((c, k) => (k === at ? now : c)) };
}

/** A join in the place of another: what was brought and is renamed is found by the rest as before. */
function inPlaceOf(before: JoinSpec, now: JoinSpec): JoinSpec {
  const ids = new Map(before.bring.map((b) => [b.column, idOfBrought(b)]));
  const bring = now.bring.map(({ id: _, ...rest }) => {
    const id = ids.get(rest.column);
    return id === undefined || id === broughtAs(rest) ? rest : { ...rest, id };
  });
  return { ...now, bring };
}

/** Puts columns from another list in, with the list where the bench does not name it yet. */
export function setJoin(
  doc: Bench,
  at: number | null,
  spec: JoinSpec,
  source: ListSource | null = null,
): Bench {
  const lists =
    source && !(spec.list in doc.lists) ? { ...doc.lists, [spec.list]: source } : doc.lists;
  const joins =
    at === null
      ? [...doc.joins, spec]
      : doc.joins.map((join, k) => (k === at ? inPlaceOf(join, spec) : join));
  return { ...doc, lists, joins };
}

export function removeMade(doc: Bench, { of, at }: MadePlace): Bench {
  return of === 'computed'
    ? { ...doc, computed: doc.computed.filter((_, k) => k !== at) }
    : { ...doc, joins: doc.joins.filter((_, k) => k !== at) };
}
