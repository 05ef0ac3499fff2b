import { inStretches, STRIDE, type Task } from '../task/task';
import { BadBands } from '../errors';
import { z } from 'zod';
import type { Test } from '../selection/condition';
import { givenNumber, showCount } from '../table/format';

/** One band of numbers. Left out: the lower edge is in and the upper out, but for the last band's. */
export const Band = z.strictObject({
  label: z.string().max(200).optional(),
  /** null: open. */
  from: z.number().nullable().default(null),
  to: z.number().nullable().default(null),
  fromIn: z.boolean().optional(),
  toIn: z.boolean().optional(),
});
export type Band = z.infer<typeof Band>;

/** A band table kept under a name. */
export const KeptBands = z.strictObject({
  name: z.string().min(1).max(120),
  bands: z.array(Band).min(1).max(1000),
});
export type KeptBands = z.infer<typeof KeptBands>;

export const MOST_BANDS = 10_000;

/** In which band a value on an edge counts: the one above it, unless given, or the one below. */
const edgeIn = z.enum(['above', 'below']).optional();

/** How the values of a number column are cut into bands (calculations, section 6). */
export const Bands = z.discriminatedUnion('by', [
  /** Bands of one width, an edge at the origin. */
  z.strictObject({
    by: z.literal('width'),
    width: z.number().positive(),
    origin: z.number().default(0),
    edgeIn,
  }),
  /** So many bands of one width; with round edges there may be a few fewer or one more. */
  z.strictObject({
    by: z.literal('number'),
    count: z.int().min(1).max(1000),
    round: z.boolean().default(true),
    edgeIn,
  }),
  /** About as many records in each; edges at quantiles by definition 7. Equal values are never split. */
  z.strictObject({ by: z.literal('equalCount'), count: z.int().min(1).max(1000), edgeIn }),
  z.strictObject({
    by: z.literal('edges'),
    edges: z.array(z.number()).min(2).max(1001),
    edgeIn,
  }),
  /** A band may say for itself which of its edges are in it. */
  z.strictObject({
    by: z.literal('table'),
    /** What they are kept under, where they were taken from those kept by name. */
    name: z.string().min(1).max(120).optional(),
    bands: z.array(Band).min(1).max(MOST_BANDS),
    edgeIn,
  }),
  /** A band table kept as a list of its own: its columns of edges, of labels, and of whether an edge is in (yes or no). */
  z.strictObject({
    by: z.literal('list'),
    list: z.string(),
    from: z.string(),
    to: z.string(),
    label: z.string().optional(),
    fromIn: z.string().optional(),
    toIn: z.string().optional(),
    edgeIn,
  }),
]);
export type EdgeIn = 'above' | 'below';
export type Bands = z.infer<typeof Bands>;

/** A band with its edges settled; open sides are infinite. */
export interface SettledBand {
  readonly label: string;
  readonly from: number;
  readonly to: number;
  readonly fromIn: boolean;
  readonly toIn: boolean;
}

/** Whether a band is the first or the last of its set: the outermost edges are both in. */
export interface Outermost {
  readonly first: boolean;
  readonly last: boolean;
}

/**
 * A band with its sides settled: the lower edge in and the upper out, or the other way round; of a
 * set's outermost bands, and of a single value, both.
 * @throws BadBands where the edges are turned
 */
export function settled(
  band: Band,
  { first, last }: Outermost,
  edge: EdgeIn = 'above',
): SettledBand {
  const from = band.from ?? -Infinity;
  const to = band.to ?? Infinity;
  if (from > to)
    throw new BadBands(
      `A band runs from ${showEdge(from)} to ${showEdge(to)}. Put the lower edge first.`,
    );
  const single = from === to;
  const settledBand = {
    from,
    to,
    fromIn: band.fromIn ?? (edge === 'above' || first || single),
    toIn: band.toIn ?? (edge === 'below' || last || single),
  };
  return { ...settledBand, label: band.label?.trim() || bandLabel(settledBand) };
}

/** `5 to 10`, `under 5`, `10 and over`, `7`; where both edges are in, or out, it says so. */
export function bandLabel({ from, to, fromIn, toIn }: Omit<SettledBand, 'label'>): string {
  if (from === to) return showEdge(from);
  if (from === -Infinity && to === Infinity) return 'all values';
  if (from === -Infinity) return toIn ? `${showEdge(to)} and under` : `under ${showEdge(to)}`;
  if (to === Infinity) return fromIn ? `${showEdge(from)} and over` : `over ${showEdge(from)}`;
  return `${fromIn ? '' : 'over '}${showEdge(from)} to ${toIn ? '' : 'under '}${showEdge(to)}`;
}

/** Digits that an edge is written with: more are the noise of adding widths up. */
const EDGE_DIGITS = 12;

/** An edge as it was given. @example showEdge(0.1 + 0.2) // 0.3 */
export const showEdge = (v: number): string => givenNumber(Number(v.toPrecision(EDGE_DIGITS)));

export const holds = (band: SettledBand, v: number): boolean =>
  (v > band.from || (v === band.from && band.fromIn)) &&
  (v < band.to || (v === band.to && band.toIn));

/** Gaps and overlaps between bands, in the order of their lower edges. */
export interface BandFault {
  readonly kind: 'gap' | 'overlap';
  readonly words: string;
}

/** More of them are counted, not named. */
const MOST_FAULTS = 200;

/**
 * Every pair of bands that overlap, and every stretch or edge between that is in none.
 * @returns in the order of the lower edges; beyond 200 one more says how many others there are
 */
export function checkBands(bands: readonly SettledBand[]): BandFault[] {
  const faults: BandFault[] = [];
  let more = 0;
  const add = (kind: BandFault['kind'], words: () => string): void => {
    if (faults.length < MOST_FAULTS) faults.push({ kind, words: words() });
    else more++;
  };
  const ordered = [...bands].sort((a, b) => a.from - b.from || Number(b.fromIn) - Number(a.fromIn));
  /** Bands before that may still reach into the next one. */
  let open: SettledBand[] = [];
  let reach: SettledBand | null = null;
  for (const band of ordered) {
    open = open.filter((b) => b.to > band.from || (b.to === band.from && b.toIn && band.fromIn));
    for (const before of open)
      add('overlap', () =>
        before.to === band.from
          ? `${showEdge(band.from)} is in both “${before.label}” and “${band.label}”; it counts in the first.`
          : `“${before.label}” and “${band.label}” overlap; a value in both counts in the first.`,
      );
    const to: SettledBand | null = reach;
    if (to && (band.from > to.to || (band.from === to.to && !band.fromIn && !to.toIn)))
      add('gap', () =>
        band.from === to.to
          ? `${showEdge(band.from)} is in neither “${to.label}” nor “${band.label}”.`
          : `Between “${to.label}” and “${band.label}”, values ${to.toIn ? 'over' : 'from'} ${showEdge(to.to)} ${band.fromIn ? 'to under' : 'to'} ${showEdge(band.from)} are in no band.`,
      );
    open.push(band);
    if (!reach || band.to > reach.to || (band.to === reach.to && band.toIn)) reach = band;
  }
  if (more > 0) faults.push({ kind: 'overlap', words: `${showCount(more)} more are not named.` });
  return faults;
}

/**
 * The band of each value: 0..bands-1, the number of bands for a value in none of them, -1 for a
 * missing one. A value in several counts in the first of the list.
 */
export function* bandCodes(values: Float64Array, bands: readonly SettledBand[]): Task<Int32Array> {
  const codes = new Int32Array(values.length);
  const none = bands.length;
  const rising = bands.every(
    (band, k) => k === 0 || (bands[k - 1].to <= band.from && bands[k - 1].from < band.from),
  );
  const search = rising ? searchIn(bands) : (v: number): number => first(bands, v, none);
  yield* inStretches(
    values.length,
    (from, to) => {
      for (let i = from; i < to; i++) codes[i] = values[i] === values[i] ? search(values[i]) : -1;
    },
    STRIDE,
  );
  return codes;
}

function first(bands: readonly SettledBand[], v: number, none: number): number {
  for (let k = 0; k < bands.length; k++) if (holds(bands[k], v)) return k;
  return none;
}

/**
 * Bands in order, by halves; at a shared edge the band before may be the one. Edges stand in arrays
 * of numbers: looked up in the bands themselves they would cost several times as much.
 */
function searchIn(bands: readonly SettledBand[]): (v: number) => number {
  const n = bands.length;
  const from = Float64Array.from(bands, (b) => b.from);
  const to = Float64Array.from(bands, (b) => b.to);
  const fromIn = Uint8Array.from(bands, (b) => +b.fromIn);
  const toIn = Uint8Array.from(bands, (b) => +b.toIn);
  const holdsAt = (k: number, v: number): boolean =>
    (v > from[k] || (v === from[k] && fromIn[k] === 1)) &&
    (v < to[k] || (v === to[k] && toIn[k] === 1));
  return (v) => {
    let low = 0;
    let high = n;
    while (low < high) {
      const mid = (low + high) >>> 1;
      if (from[mid] <= v) low = mid + 1;
      else high = mid;
    }
    if (low > 1 && holdsAt(low - 2, v)) return low - 2;
    return low > 0 && holdsAt(low - 1, v) ? low - 1 : n;
  };
}

/** What a value must meet to be in a band. */
export function bandTest({ from, to, fromIn, toIn }: SettledBand): Test {
  if (from === to && Number.isFinite(from)) return { test: 'compare', op: 'eq', value: from };
  if (to === Infinity) return { test: 'compare', op: fromIn ? 'ge' : 'gt', value: finite(from) };
  if (from === -Infinity) return { test: 'compare', op: toIn ? 'le' : 'lt', value: finite(to) };
  return { test: 'between', from, to, fromIn, toIn };
}

/** JSON has no infinity; the largest double stands for it. */
const finite = (v: number): number =>
  v === -Infinity ? -Number.MAX_VALUE : v === Infinity ? Number.MAX_VALUE : v;
