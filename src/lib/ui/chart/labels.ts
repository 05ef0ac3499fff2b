import { showNumber } from '../../core/table/format';

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

/** Pixels of a character on a handle, and of its rim. */
const HANDLE_CHARACTER = 6.9;
const HANDLE_RIM = 22;

/**
 * Texts on handles that stand side by side, and how far apart they stand: in thousands where whole
 * numbers of thousands would not fit otherwise. No digit is left out.
 * @param room pixels for all of them
 * @example handleTexts([0, 100000, 200000], 120).texts // ['0', '100k', '200k']
 */
export function handleTexts(
  values: readonly number[],
  room: number,
): { texts: string[]; apart: number } {
  const widthOf = (texts: readonly string[]): number =>
    Math.max(0, ...texts.map((text) => text.length)) * HANDLE_CHARACTER + HANDLE_RIM;
  const fits = (texts: readonly string[]): boolean => (texts.length - 1) * widthOf(texts) <= room;
  const whole = values.map((value) => showNumber(value));
  const short = values.every((value) => value % 1000 === 0)
    ? values.map((value) => (value === 0 ? '0' : `${showNumber(value / 1000)}k`))
    : whole;
  const texts = fits(whole) ? whole : short;
  return { texts, apart: Math.min(widthOf(texts), room / Math.max(1, texts.length - 1)) };
}

/** A text cut to a width, at so many pixels a character. */
export const cut = (text: string, width: number, character = 6.4): string => {
  const most = Math.max(1, Math.floor(width / character));
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
};
