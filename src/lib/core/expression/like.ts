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
  let source = '';
  const characters = [...pattern];
  for (let i = 0; i < characters.length; i++) {
    const c = characters[i];
    if (c === escape) {
      const next = characters[++i];
      if (next !== '%' && next !== '_' && next !== escape) return null;
      source += literal(next);
    } else if (c === '%') source += '[\\s\\S]*';
    else if (c === '_') source += '[\\s\\S]';
    else source += literal(c);
  }
  const regex = new RegExp(`^${source}$`, 'u');
  return (text) => regex.test(text);
}

const literal = (c: string): string => c.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');
