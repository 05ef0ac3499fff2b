/** A share with its sign: `+13.2 %`, `−0.4 %`, `0.0 %`. */
export function signed(share: number): string {
  const text = Math.abs(share * 100).toFixed(1);
  const sign = text === '0.0' ? '' : share > 0 ? '+' : '−';
  return `${sign}${text} %`;
}
