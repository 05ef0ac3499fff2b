import type { ScalarColumn } from './column';

/** Whole numbers that all lie where years do: adding them up says nothing. */
export const looksLikeYears = (column: ScalarColumn): boolean =>
  column.decimals === 0 &&
  column.values.every((v) => v !== v || (v >= 1800 && v < 2200)) &&
  column.values.some((v) => v === v);
