/**
 * The candidate most like a text that was not found, for "did you mean"; null where none is near.
 * Nearness: the distance of Damerau (1964), neighbours turned at most once, case and outer spaces
 * ignored, at most a third of the letters; a candidate that begins with the text, or is begun by it, counts as near too.
 */
export function nearest(text: string, candidates: Iterable<string>): string | null {
  const wanted = text.trim().toLowerCase();
  let best: string | null = null;
  let least = Infinity;
  for (const candidate of candidates) {
    const other = candidate.trim().toLowerCase();
    const begins =
      wanted.length > 2 &&
      other.length > 2 &&
      (other.startsWith(wanted) || wanted.startsWith(other));
    const far = distance(wanted, other);
    const limit = Math.max(1, Math.floor(Math.max(wanted.length, other.length) / 3));
    const score = begins ? Math.min(far, 0.5) : far;
    if ((begins || far <= limit) && score < least) [best, least] = [candidate, score];
  }
  return best;
}

/** Insertions, deletions, replacements and turned neighbours that make one text of the other. */
export function distance(a: string, b: string): number {
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next.push(
        Math.min(next[j - 1] + 1, row[j] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1)),
      );
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        next[j] = Math.min(next[j], before[j - 2] + 1);
    }
    [before, row] = [row, next];
  }
  return row[b.length];
}
