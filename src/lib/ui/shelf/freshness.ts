const DAY_MS = 86_400_000;

/** How long ago, as people say it: `today`, `yesterday`, `5 days ago`, then the date. */
export function freshness(then: string, now: string): string {
  const date = new Date(then);
  const days =
    Math.floor(new Date(now).setHours(0, 0, 0, 0) / DAY_MS) -
    Math.floor(new Date(then).setHours(0, 0, 0, 0) / DAY_MS);
  if (days <= 0)
    return `today, ${date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
  if (days === 1) return 'yesterday';
  if (days < 15) return `${days} days ago`;
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
}
