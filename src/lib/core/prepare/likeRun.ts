/** What the guess needs to know of a column. */
export interface RunColumn {
  readonly id: string;
  readonly name: string;
  readonly type: string;
  readonly unit: string;
}

/** A column of years says when, whatever stands beside it. */
const YEAR = /^(year|season|fy)\b|\byear$/i;

/** Fewer columns beside one another may be alike by chance. */
const LEAST = 4;

/**
 * Columns that are likely one thing spread over many: the longest run of number columns of one unit
 * that stand beside one another, the first of equal ones. Fewer than four are none.
 * @example likeRun([day, north, south, east, west]) // ['north', 'south', 'east', 'west']
 */
export function likeRun(columns: readonly RunColumn[]): string[] {
  let longest: readonly RunColumn[] = [];
  let run: RunColumn[] = [];
  for (const column of columns) {
    if (column.type !== 'number' || YEAR.test(column.name.trim())) run = [];
    else if (run.length && run[0].unit === column.unit) run.push(column);
    else run = [column];
    if (run.length > longest.length) longest = [...run];
  }
  return longest.length < LEAST ? [] : longest.map(({ id }) => id);
}
