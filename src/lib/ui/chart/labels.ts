/** A text at the end of a line, and how high it would like to stand. */
export interface EndLabel {
  readonly text: string;
  readonly at: number;
  readonly series: number;
}

/**
 * Moves labels apart so that none covers another, each as near its line as may be, within a height.
 * Labels keep their order.
 */
export function spreadLabels(
  labels: readonly EndLabel[],
  least: number,
  top: number,
  bottom: number,
): EndLabel[] {
  const sorted = [...labels].sort((a, b) => a.at - b.at);
  const at = sorted.map((label) => Math.max(top, Math.min(bottom, label.at)));
  for (let k = 1; k < at.length; k++) at[k] = Math.max(at[k], at[k - 1] + least);
  const over = (at[at.length - 1] ?? 0) - bottom;
  if (over > 0) {
    at[at.length - 1] -= over;
    for (let k = at.length - 2; k >= 0; k--) at[k] = Math.min(at[k], at[k + 1] - least);
  }
  return sorted.map((label, k) => ({ ...label, at: at[k] }));
}

/** A text cut to a width, at so many pixels a character. */
export const cut = (text: string, width: number, character = 6.4): string => {
  const most = Math.max(1, Math.floor(width / character));
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
};
