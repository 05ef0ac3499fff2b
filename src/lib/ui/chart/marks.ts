import type { FigurePlace } from '../../core/tally/answer/result';

/** A point, bar or cell of a chart: the same figure as the cell in the table. */
export interface ChartMark {
  readonly x: number;
  readonly y: number;
  /** `Skerry Bank, 2024: 5,371,702 £` */
  readonly words: string;
  /** The figure it is; null where it can only be read. */
  readonly place: FigurePlace | null;
  /** The one record it is, where it is no figure. */
  readonly record?: number;
}

/** Margins around what is drawn. */
export interface Margin {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

/** Colours and strokes of series, told apart by their names and dashes too. */
export const SERIES = [
  { colour: 'var(--tide)', dash: '' },
  { colour: 'var(--plum)', dash: '' },
  { colour: 'var(--brass)', dash: '' },
  { colour: 'var(--good)', dash: '' },
  { colour: 'var(--ink-soft)', dash: '' },
  { colour: 'var(--tide)', dash: '6 3' },
  { colour: 'var(--plum)', dash: '6 3' },
  { colour: 'var(--brass)', dash: '6 3' },
  { colour: 'var(--good)', dash: '6 3' },
  { colour: 'var(--ink-soft)', dash: '6 3' },
] as const;
export const styleOf = (series: number): (typeof SERIES)[number] => SERIES[series % SERIES.length];

export const samePlace = (a: FigurePlace | null, b: FigurePlace | null): boolean =>
  a !== null && b !== null && JSON.stringify(a) === JSON.stringify(b);
