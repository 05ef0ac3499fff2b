import { showNumber } from '../../core/table/format';

const SCALES = [
  [1e9, 'bn'],
  [1e6, 'M'],
  [1e3, 'k'],
] as const;

/**
 * Texts of an axis's ticks: all in one scale, with as many decimals as their step needs.
 * @param share whether the values are fractions shown as per cent
 */
export function tickTexts(ticks: readonly number[], share = false): string[] {
  if (share) {
    const step = stepOf(ticks) * 100;
    return ticks.map((t) => `${fixed(t * 100, decimalsOf(step))} %`);
  }
  const most = Math.max(0, ...ticks.map(Math.abs));
  const [by, suffix] = SCALES.find(
    ([size]) => most >= size * 10 || (most >= size && size > 1e3),
  ) ?? [1, ''];
  const decimals = decimalsOf(stepOf(ticks) / by);
  return ticks.map((t) => (t === 0 ? '0' : `${fixed(t / by, decimals)}${suffix}`));
}

const stepOf = (ticks: readonly number[]): number =>
  ticks.length > 1 ? Math.abs(ticks[1] - ticks[0]) : Math.abs(ticks[0] ?? 1) || 1;

const decimalsOf = (step: number): number =>
  Math.max(0, Math.min(6, -Math.floor(Math.log10(step) + 1e-9)));

const fixed = (value: number, decimals: number): string =>
  showNumber(value, {
    thousands: true,
    style: 'plain',
    currency: '£',
    scale: 'one',
    negative: 'minus',
    decimals,
  });
