/** What one answer to the page may weigh, in characters of JSON: the rest is asked for after it. */
const MOST = 180_000;

/** Whether a part of an answer leaves room enough for the rest of it. */
export const isLight = (part: unknown): boolean => JSON.stringify(part).length <= MOST / 2;

/**
 * Takes parts of an answer as long as they fit into it; the first one fits whatever it weighs.
 *
 * @example
 * const fits = fitting();
 * for (const part of parts) if (fits(part)) answer.push(part); else break;
 */
export function fitting(): (part: unknown) => boolean {
  let weight = 0;
  return (part) => {
    const before = weight;
    weight += JSON.stringify(part).length;
    return before === 0 || weight <= MOST;
  };
}
