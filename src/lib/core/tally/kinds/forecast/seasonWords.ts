/** The two usual updates of a season that multiplies, by name. */
export const SEASON_BY_WORDS = {
  levelBefore: 'seasons by the level before',
  levelNow: 'seasons by the new level',
} as const;
