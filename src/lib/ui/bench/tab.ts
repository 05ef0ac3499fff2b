/*
 * Which tab this is, and which others are open: each holds a lock of its own for as long as it lives, which the browser
 * lets go with the tab, however it ends.
 */

const lockOf = (tab: string): string => `tally-loft tab ${tab}`;

let own: string | null = null;

/** This tab's name, from the first call until the page is left; no two pages share one. */
export function thisTab(): string {
  if (own !== null) return own;
  own = Array.from(crypto.getRandomValues(new Uint8Array(9)), (n) => n.toString(36)).join('');
  // Never let go: the browser does when the page is gone. Where it has no locks, every tab counts as closed.
  void navigator.locks
    ?.request(lockOf(own), () => new Promise(() => undefined))
    .catch(() => undefined);
  return own;
}

/** Whether the tab of this name is open, this one among them. */
export async function isOpen(tab: string): Promise<boolean> {
  if (tab === '') return false;
  if (tab === own) return true;
  const { held = [] } = (await navigator.locks?.query()) ?? {};
  return held.some(({ name }) => name === lockOf(tab));
}
