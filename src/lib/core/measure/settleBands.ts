import { BadBands } from '../errors';
import { MOST_BANDS, settled, showEdge, type Bands, type SettledBand } from '../arrange/bands';
import { quantiles } from './quantile';

/**
 * The bands a spec means for these values.
 * @param values those that are there; moved about where bands of equal counts are asked for
 * @throws BadBands
 */
export function settleBands(spec: Bands, values: Float64Array): SettledBand[] {
  switch (spec.by) {
    case 'table':
      return spec.bands.map((band, k) => settled(band, k === spec.bands.length - 1));
    case 'list':
      throw new BadBands(`The band table “${spec.list}” is not at hand.`);
    case 'edges':
      return fromEdges(checkedEdges(spec.edges));
    case 'equalCount': {
      if (values.length === 0) return [];
      const shares = Array.from({ length: spec.count + 1 }, (_, k) => k / spec.count);
      return fromEdges([...new Set(quantiles(values, 0, values.length, shares))]);
    }
    case 'width':
      return ofWidth(spec.width, spec.origin, values);
    case 'number':
      return soMany(spec.count, spec.round, values);
  }
}

function checkedEdges(edges: readonly number[]): number[] {
  for (let k = 1; k < edges.length; k++)
    if (edges[k] <= edges[k - 1])
      throw new BadBands(
        `The edges must rise, but ${showEdge(edges[k])} follows ${showEdge(edges[k - 1])}.`,
      );
  return [...edges];
}

/** Bands between rising edges, the last one closed. A single edge is a band of one value. */
function fromEdges(edges: readonly number[]): SettledBand[] {
  if (edges.length === 1) return [settled({ from: edges[0], to: edges[0] }, true)];
  return edges.slice(1).map((to, k) => settled({ from: edges[k], to }, k === edges.length - 2));
}

function rangeOf(values: Float64Array): { min: number; max: number } | null {
  let [min, max] = [Infinity, -Infinity];
  for (const v of values) {
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return min <= max ? { min, max } : null;
}

function ofWidth(width: number, origin: number, values: Float64Array): SettledBand[] {
  const range = rangeOf(values);
  if (!range) return [];
  const first = Math.floor((range.min - origin) / width);
  const last = Math.floor((range.max - origin) / width);
  if (!(last - first < MOST_BANDS))
    throw new BadBands(
      `Bands of ${showEdge(width)} from ${showEdge(range.min)} to ${showEdge(range.max)} would be over ${MOST_BANDS.toLocaleString('en')}. Take wider ones.`,
    );
  const edge = (k: number): number => clean(origin + k * width, width);
  return Array.from({ length: last - first + 1 }, (_, k) =>
    settled({ from: edge(first + k), to: edge(first + k + 1), toIn: false }, false),
  );
}

/** Without the digits that binary fractions add: an edge is written as its width is. */
const clean = (v: number, width: number): number => {
  const places = Math.max(0, -Math.floor(Math.log10(width)) + 6);
  return places > 15 ? v : Number(v.toFixed(places));
};

function soMany(count: number, round: boolean, values: Float64Array): SettledBand[] {
  const range = rangeOf(values);
  if (!range) return [];
  const { min, max } = range;
  if (min === max) return [settled({ from: min, to: max }, true)];
  if (!round) {
    const step = (max - min) / count;
    return fromEdges(
      Array.from({ length: count + 1 }, (_, k) => (k === count ? max : min + k * step)),
    );
  }
  const step = roundStep(min, max, count);
  const first = Math.floor(min / step);
  const last = Math.ceil(max / step);
  return fromEdges(
    Array.from({ length: last - first + 1 }, (_, k) => clean((first + k) * step, step)),
  );
}

/** Of 1, 2, 2.5 and 5 times a power of ten, the width that gives nearest to so many bands. */
function roundStep(min: number, max: number, count: number): number {
  const power = 10 ** Math.floor(Math.log10((max - min) / count));
  let best = power;
  let off = Infinity;
  for (const lead of [1, 2, 2.5, 5, 10]) {
    const step = lead * power;
    const bands = Math.ceil(max / step) - Math.floor(min / step);
    if (Math.abs(bands - count) < off) [best, off] = [step, Math.abs(bands - count)];
  }
  return best;
}
