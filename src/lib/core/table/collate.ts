/** Language rules with numbers inside text in number order: "Pier 9" before "Pier 10". */
const collator = new Intl.Collator('en', { numeric: true });

export const compareText = (a: string, b: string): number =>
  collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);

/**
 * The place of each dictionary entry in order. Entries that the hand-given order lists come first,
 * in that order; the rest follow by language rules.
 */
export function textRanks(dictionary: readonly string[], hand: readonly string[] = []): Int32Array {
  const given = new Map(hand.map((text, at) => [text, at]));
  const order = Int32Array.from(dictionary.keys()).sort((a, b) => {
    const [x, y] = [
      given.get(dictionary[a]) ?? hand.length,
      given.get(dictionary[b]) ?? hand.length,
    ];
    return x - y || compareText(dictionary[a], dictionary[b]);
  });
  const ranks = new Int32Array(dictionary.length);
  order.forEach((code, rank) => (ranks[code] = rank));
  return ranks;
}
