import { wildcardTest, type Wildcard } from '../pattern/wildcard';

/**
 * LIKE of ISO/IEC 9075: `%` any run of characters, `_` one; the escape character makes the next
 * `%`, `_` or itself literal. Case counts.
 * @returns null where the escape is not one character, or stands before anything else
 */
export function likeTest(
  pattern: string,
  escape: string | null,
): ((text: string) => boolean) | null {
  if (escape !== null && [...escape].length !== 1) return null;
  const places: Wildcard[] = [];
  const characters = [...pattern];
  for (let i = 0; i < characters.length; i++) {
    const c = characters[i];
    if (c === escape) {
      const next = characters[++i];
      if (next !== '%' && next !== '_' && next !== escape) return null;
      places.push({ is: next });
    } else if (c === '%') places.push('run');
    else if (c === '_') places.push('one');
    else places.push({ is: c });
  }
  return wildcardTest(places);
}
