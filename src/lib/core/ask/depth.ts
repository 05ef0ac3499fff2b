/** Objects and lists within one another; what people write has a dozen or two. */
export const MOST_DEEP = 300;

/**
 * Whether objects and lists of a document lie more than so many deep in one another. Looked at without calling itself:
 * a document of any depth is only counted, never a stack overflow.
 */
export function isDeeperThan(document: unknown, most: number): boolean {
  let level: unknown[] = [document];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true;
    level = level.flatMap((part) =>
      typeof part === 'object' && part !== null ? Object.values(part) : [],
    );
  }
  return false;
}
