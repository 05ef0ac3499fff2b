import type { Phrase } from './phrase';

/** What a word costs that no phrase takes: more than any phrase can gain by leaving it. */
const LEFT = 100;
/** Fewer phrases are read before more: each takes as many words as it can. */
const EACH = 10;

/**
 * The phrases that together read most of the words, none of them twice, in their order; of several ways those of
 * the best fit. A shortest path through the words (Dijkstra's principle of optimality, from the last word back).
 * @param phrases those that begin at each word
 */
export function coverOf(length: number, phrases: readonly (readonly Phrase[])[]): Phrase[] {
  const cost = new Array<number>(length + 1).fill(0);
  const chosen = new Array<Phrase | null>(length).fill(null);
  for (let at = length - 1; at >= 0; at--) {
    cost[at] = cost[at + 1] + LEFT;
    for (const phrase of phrases[at]) {
      const own = cost[phrase.to] + EACH - phrase.fit;
      if (own < cost[at]) [cost[at], chosen[at]] = [own, phrase];
    }
  }
  const out: Phrase[] = [];
  for (let at = 0; at < length;) {
    const phrase = chosen[at];
    if (phrase) out.push(phrase);
    at = phrase?.to ?? at + 1;
  }
  return out;
}
