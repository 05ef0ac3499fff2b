import type { FigurePlace } from '../../core/tally/answer/result';

/** What every chart is given beside its figures. Lengths are in pixels. */
export interface ChartFrame {
  width: number;
  height: number;
  /** The chart in words, for who does not see it. */
  description: string;
  /** The place of the figure whose records are shown, if it is drawn here. */
  chosen?: FigurePlace | null;
  /** In small, without axes, texts and keys. */
  small?: boolean;
  onopen?: ((place: FigurePlace) => void) | undefined;
}

/** A figure that a chart draws, with its words and where it stands in the tally. */
export interface Drawn {
  /** NaN: there is none, and nothing is drawn. */
  readonly value: number;
  readonly words: string;
  readonly place: FigurePlace | null;
  /** On few records: drawn hollow. */
  readonly few?: boolean;
  /** Covered only in part: hatched. */
  readonly partial?: boolean;
}

/** Figures under one name: a line, or the bars of one colour. */
export interface Series {
  readonly name: string;
  readonly figures: readonly Drawn[];
}

/** Lowest and highest of what is there, with 0 where lengths are read. */
export function extent(values: readonly number[], withZero: boolean): [number, number] {
  const there = values.filter(Number.isFinite);
  const low = Math.min(...there, ...(withZero || there.length === 0 ? [0] : []));
  const high = Math.max(...there, ...(withZero || there.length === 0 ? [0] : []));
  return low === high ? [Math.min(low, 0), Math.max(high, 1)] : [low, high];
}

/** Distances between texts that people count in: months, quarters, half-years, years. */
const ROUND = [1, 2, 3, 4, 6, 12, 24, 36, 60, 120];

/** Every so many-th place, at a round distance, so that texts of a width do not meet. */
export function everyNth(count: number, width: number, text: number): number {
  const least = Math.max(1, Math.ceil((count * text) / Math.max(1, width)));
  return ROUND.find((n) => n >= least) ?? least;
}
