import { Circle } from '../errors';
import { spokenOf } from '../expression/names';
import { columnsNamed } from './computedColumn';
import { broughtAs, idOfBrought, idOfComputed, type ComputedSpec, type JoinSpec } from './specs';

/** One preparation: what it makes, and the names it must find. */
export interface Preparation {
  readonly path: string;
  readonly spec: { readonly computed: ComputedSpec } | { readonly join: JoinSpec };
  readonly makes: readonly string[];
  readonly needs: readonly string[];
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const namesOnce = (name: string, id: string): string[] => (name === id ? [name] : [name, id]);

export function preparations(
  computed: readonly ComputedSpec[],
  joins: readonly JoinSpec[],
): Preparation[] {
  return [
    ...joins.map((join, k): Preparation => ({
      path: `joins[${k}]`,
      spec: { join },
      makes: join.bring.flatMap((b) => namesOnce(broughtAs(b), idOfBrought(b))),
      needs: join.on.flatMap((o) => spokenOf(o.column)),
    })),
    ...computed.map((spec, k): Preparation => ({
      path: `computed[${k}]`,
      spec: { computed: spec },
      makes: namesOnce(spec.name, idOfComputed(spec)),
      needs: columnsNamed(spec),
    })),
  ];
}

/** The preparation that makes a column of this name; undefined where none does. */
export const makerOf = (all: readonly Preparation[], name: string): Preparation | undefined =>
  all.find(({ makes }) => makes.some((made) => same(made, name)));

/**
 * Puts preparations in an order in which each finds what it needs. @throws Circle
 * @param there names the list itself has: a computed column may not stand in for one of those
 */
export function inOrder(all: readonly Preparation[], there: readonly string[]): Preparation[] {
  const out: Preparation[] = [];
  const state = new Map<Preparation, 'open' | 'done'>();
  const trail: Preparation[] = [];
  const visit = (p: Preparation): void => {
    if (state.get(p) === 'done') return;
    if (state.get(p) === 'open') {
      const circle = trail.slice(trail.indexOf(p));
      throw new Circle(
        p.path,
        [...circle, p].map((q) => q.makes[0]),
      );
    }
    state.set(p, 'open');
    trail.push(p);
    for (const need of p.needs) {
      if (there.some((name) => same(name, need))) continue;
      const maker = makerOf(all, need);
      if (maker) visit(maker);
    }
    trail.pop();
    state.set(p, 'done');
    out.push(p);
  };
  for (const p of all) visit(p);
  return out;
}
