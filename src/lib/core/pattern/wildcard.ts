/** One place of a pattern: a character, any one character, or any run of them. */
export type Wildcard = { readonly is: string } | 'one' | 'run';

/**
 * Whether a whole text fits a pattern of characters, single places and runs. What stands between two
 * runs is looked for at its first place only: if the rest fits at a later one, it fits at the first
 * as well. So a text is gone through once, whatever the pattern, and nothing is tried again.
 *
 * Places are code points, so that one place takes a character outside the basic plane whole.
 * @example wildcardTest([{ is: 'a' }, 'run'])('abc') // true
 */
export function wildcardTest(pattern: readonly Wildcard[]): (text: string) => boolean {
  const pieces: Wildcard[][] = [[]];
  for (const place of pattern)
    if (place === 'run') pieces.push([]);
    else pieces[pieces.length - 1].push(place);
  const [first, ...rest] = pieces;
  const last = rest.pop();
  const between = rest.filter((piece) => piece.length > 0);
  return (text) => {
    const characters = [...text];
    if (!fitsAt(characters, 0, first)) return false;
    let at = first.length;
    if (last === undefined) return at === characters.length;
    for (const piece of between) {
      at = find(characters, at, piece);
      if (at < 0) return false;
      at += piece.length;
    }
    const tail = characters.length - last.length;
    return tail >= at && fitsAt(characters, tail, last);
  };
}

function find(characters: readonly string[], from: number, piece: readonly Wildcard[]): number {
  for (let at = from; at + piece.length <= characters.length; at++)
    if (fitsAt(characters, at, piece)) return at;
  return -1;
}

function fitsAt(characters: readonly string[], at: number, piece: readonly Wildcard[]): boolean {
  if (at + piece.length > characters.length) return false;
  for (let k = 0; k < piece.length; k++) {
    const place = piece[k];
    if (typeof place !== 'string' && place.is !== characters[at + k]) return false;
  }
  return true;
}
