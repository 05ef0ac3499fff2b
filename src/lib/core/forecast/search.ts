import { pausing, type Task } from '../task/task';

/** Points of a series that the cost is worked out over between two pauses. */
const WORK = 1 << 17;

/**
 * The least value of a function within bounds, by the simplex of Nelder and Mead (1965) with the
 * usual coefficients, from a few starts; points outside are drawn to the bound.
 * @param work how much one look at the cost is, in points of a series
 */
export function* least(
  cost: (x: readonly number[]) => number,
  bounds: readonly (readonly [number, number])[],
  work: number,
): Task<number[]> {
  if (bounds.length === 0) return [];
  const due = pausing(WORK);
  let done = 0;
  const worked = (x: readonly number[]): number => {
    done += work;
    return cost(x);
  };
  let best: { x: number[]; f: number } = { x: bounds.map(([a, b]) => (a + b) / 2), f: Infinity };
  for (const share of [0.15, 0.5, 0.85]) {
    const found = yield* simplex(
      worked,
      bounds,
      bounds.map(([a, b], k) => a + (b - a) * (k % 2 ? 1 - share : share)),
      () => due(done),
    );
    if (found.f < best.f) best = found;
  }
  return best.x;
}

const MOST_STEPS = 160;

function* simplex(
  cost: (x: readonly number[]) => number,
  bounds: readonly (readonly [number, number])[],
  start: number[],
  isDue: () => boolean,
): Task<{ x: number[]; f: number }> {
  const clamp = (x: number[]): number[] =>
    x.map((v, k) => Math.min(bounds[k][1], Math.max(bounds[k][0], v)));
  const point = (x: number[]): { x: number[]; f: number } => {
    const inside = clamp(x);
    const f = cost(inside);
    return { x: inside, f: f === f ? f : Infinity };
  };
  const corners = [
    point(start),
    ...bounds.map(([a, b], k) =>
      point(start.map((v, j) => (j === k ? v + (v < (a + b) / 2 ? 0.2 : -0.2) * (b - a) : v))),
    ),
  ];
  for (let step = 0; step < MOST_STEPS; step++) {
    if (isDue()) yield undefined;
    corners.sort((p, q) => p.f - q.f);
    const worst = corners[corners.length - 1];
    if (worst.f - corners[0].f <= 1e-12 * Math.abs(corners[0].f)) {
      const width = Math.max(...bounds.map((_, k) => Math.abs(worst.x[k] - corners[0].x[k])));
      if (width < 1e-8) break;
    }
    const middle = bounds.map(
      (_, k) => corners.slice(0, -1).reduce((s, c) => s + c.x[k], 0) / (corners.length - 1),
    );
    const along = (share: number): { x: number[]; f: number } =>
      point(middle.map((v, k) => v + share * (worst.x[k] - v)));
    const reflected = along(-1);
    let next = reflected;
    if (reflected.f < corners[0].f) {
      const further = along(-2);
      if (further.f < reflected.f) next = further;
    } else if (reflected.f >= corners[corners.length - 2].f) {
      const nearer = along(reflected.f < worst.f ? -0.5 : 0.5);
      if (nearer.f < Math.min(reflected.f, worst.f)) next = nearer;
      else {
        const [top] = corners;
        for (let k = 1; k < corners.length; k++)
          corners[k] = point(top.x.map((v, j) => v + 0.5 * (corners[k].x[j] - v)));
        continue;
      }
    }
    corners[corners.length - 1] = next;
  }
  corners.sort((p, q) => p.f - q.f);
  return corners[0];
}
