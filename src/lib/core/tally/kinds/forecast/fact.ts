import type { TallyAnswer } from '../../answer/answer';

/** How far the first bounds reach on each side, of the forecast: `±8 %` */
export function forecastFact({ tables: [main] }: TallyAnswer): string {
  const place = (key: string): number => main.columns.findIndex((c) => c.key === key);
  const [at, low, high] = [place('forecast'), place('low1'), place('high1')];
  if (low < 0 || high < 0) return `${main.length} ahead`;
  let share = 0;
  for (let n = 0; n < main.length; n++)
    share += (main.number(n, high) - main.number(n, low)) / 2 / Math.abs(main.number(n, at));
  const mean = share / main.length;
  return Number.isFinite(mean) ? `±${Math.round(mean * 100)} %` : '';
}
