const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Whether a write comes from another site. Browsers say where a request starts (Sec-Fetch-Site,
 * Origin); a script outside a browser says neither and is let through, as it carries nobody's
 * cookies.
 */
export function isCrossSiteWrite(method: string, headers: Headers, host: string): boolean {
  if (SAFE.has(method)) return false;
  const site = headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = headers.get('origin');
  if (origin === null) return false;
  try {
    return new URL(origin).host !== host;
  } catch {
    return true;
  }
}

/** On the loopback address only its own names may be asked for, so that no foreign name is pointed at it. */
export function isForeignHost(host: string | null): boolean {
  if (host === null) return true;
  const name = host.replace(/:\d+$/, '');
  return !['127.0.0.1', 'localhost', '[::1]'].includes(name);
}
