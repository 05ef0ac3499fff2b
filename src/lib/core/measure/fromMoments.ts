import type { Moments } from './moments';
import type { MeasureKind } from './measure';

/** Measures that follow from moments alone; null for the others. NaN: none. */
export function fromMoments(kind: MeasureKind, m: Moments, g: number): number | null {
  const n = m.count(g);
  switch (kind) {
    case 'values':
      return n;
    case 'sum':
    case 'running':
      return m.sum(g);
    case 'mean':
      return m.mean(g);
    case 'min':
      return m.min(g);
    case 'max':
      return m.max(g);
    case 'range':
      return m.max(g) - m.min(g);
    case 'variance':
      return n > 1 ? m.squares(g) / (n - 1) : NaN;
    case 'variancePopulation':
      return n ? m.squares(g) / n : NaN;
    case 'sd':
      return n > 1 ? Math.sqrt(m.squares(g) / (n - 1)) : NaN;
    case 'sdPopulation':
      return n ? Math.sqrt(m.squares(g) / n) : NaN;
    case 'standardError':
      return n > 1 ? Math.sqrt(m.squares(g) / (n - 1) / n) : NaN;
    case 'cv': {
      const mean = m.mean(g);
      return n > 1 && mean !== 0 ? Math.sqrt(m.squares(g) / (n - 1)) / mean : NaN;
    }
    default:
      return null;
  }
}

/** Whether a measure follows from moments alone. */
export const isFromMoments = (kind: MeasureKind): boolean =>
  FROM_SUMS.includes(kind) || momentsNeeded(kind) !== 'sums';

const FROM_SUMS: readonly MeasureKind[] = ['values', 'sum', 'running', 'mean'];

/** What must be computed of a column for a measure: each holds what the one before it does. */
export type MomentsNeeded = 'sums' | 'extremes' | 'squares';

export const momentsNeeded = (kind: MeasureKind): MomentsNeeded =>
  needsSquares(kind)
    ? 'squares'
    : kind === 'min' || kind === 'max' || kind === 'range'
      ? 'extremes'
      : 'sums';

/** Whether the squared deviations must be computed for this measure. */
export const needsSquares = (kind: MeasureKind): boolean =>
  ['variance', 'variancePopulation', 'sd', 'sdPopulation', 'standardError', 'cv'].includes(kind);
