import { showCount } from '../table/format';
import { BadBands } from '../errors';
import {
  MOST_BANDS,
  settled,
  showEdge,
  type Bands,
  type EdgeIn,
  type Outermost,
  type SettledBand,
} from '../arrange/bands';
import { quantiles } from './quantile';

/**
 * The bands a spec means for these values.
 * @param values those that are there; moved about where bands of equal counts are asked for
 * @throws BadBands
 */
export function settleBands(spec: Bands, values: Float64Array): SettledBand[] {
  switch (spec.by) {
    case 'table':
      return spec.bands.map((band, k) => settled(band, place(k, spec.bands.length), spec.edgeIn));
    case 'list':
      throw new BadBands(`The band table “${spec.list}” is not at hand.`);
    case 'edges':
      return fromEdges(checkedEdges(spec.edges), spec.edgeIn);
    case 'equalCount': {
      if (values.length === 0) return [];
      const shares = Array.from({ length: spec.count + 1 }, (_, k) => k / spec.count);
      return fromEdges([...new Set(quantiles(values, 0, values.length, shares))], spec.edgeIn);
    }
    case 'width':
      return ofWidth(spec, values);
    case 'number':
      return soMany(spec, values);
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

/** Where a band stands in its set. */
const place = (k: number, bands: number): Outermost => ({ first: k === 0, last: k === bands - 1 });
/** Bands that others could follow on both sides have no outermost edges. */
const INNER: Outermost = { first: false, last: false };

/** Bands between rising edges, the outermost ones in. A single edge is a band of one value. */
function fromEdges(edges: readonly number[], edgeIn?: EdgeIn): SettledBand[] {
  if (edges.length === 1) return [settled({ from: edges[0], to: edges[0] }, INNER)];
  return edges
    .slice(1)
    .map((to, k) => settled({ from: edges[k], to }, place(k, edges.length - 1), edgeIn));
}

function rangeOf(values: Float64Array): { min: number; max: number } | null {
  let min = Infinity;
  let max = -Infinity;
  for (const v of values) {
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return min <= max ? { min, max } : null;
}

function ofWidth(
  { width, origin, edgeIn = 'above' }: Extract<Bands, { by: 'width' }>,
  values: Float64Array,
): SettledBand[] {
  const range = rangeOf(values);
  if (!range) return [];
  // A value on an edge belongs to the band above it, or to the one below.
  const bandOf = (v: number): number =>
    edgeIn === 'above' ? Math.floor((v - origin) / width) : Math.ceil((v - origin) / width) - 1;
  const [first, last] = [bandOf(range.min), bandOf(range.max)];
  if (!(last - first < MOST_BANDS))
    throw new BadBands(
      `Bands of ${showEdge(width)} from ${showEdge(range.min)} to ${showEdge(range.max)} would be over ${showCount(MOST_BANDS)}. Take wider ones.`,
    );
  const edge = (k: number): number => clean(origin + k * width, width);
  return Array.from({ length: last - first + 1 }, (_, k) =>
    settled({ from: edge(first + k), to: edge(first + k + 1) }, INNER, edgeIn),
  );
}

/** Without the digits that binary fractions add: an edge is written as its width is. */
const clean = (v: number, width: number): number => {
  const places = Math.max(0, -Math.floor(Math.log10(width)) + 6);
  return places > 15 ? v : Number(v.toFixed(places));
};

function soMany(
  { count, round, edgeIn }: Extract<Bands, { by: 'number' }>,
  values: Float64Array,
): SettledBand[] {
  const range = rangeOf(values);
  if (!range) return [];
  const { min, max } = range;
  if (min === max) return [settled({ from: min, to: max }, INNER)];
  if (!round) {
    const step = (max - min) / count;
    return fromEdges(
      Array.from({ length: count + 1 }, (_, k) => (k === count ? max : min + k * step)),
      edgeIn,
    );
  }
  const step = roundStep(min, max, count);
  const first = Math.floor(min / step);
  const last = Math.ceil(max / step);
  return fromEdges(
    Array.from({ length: last - first + 1 }, (_, k) => clean((first + k) * step, step)),
    edgeIn,
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
