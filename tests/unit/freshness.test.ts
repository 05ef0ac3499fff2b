import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { freshness } from '$lib/ui/shelf/freshness';

describe('how fresh a list is', () => {
  const zone = process.env.TZ;
  beforeEach(() => void (process.env.TZ = 'Europe/London'));
  afterEach(() => {
    if (zone === undefined) delete process.env.TZ;
    else process.env.TZ = zone;
  });

  it('counts days of the calendar, also those of 23 and of 25 hours', () => {
    // The clock goes back on the night to 25 October 2026, and forward on that to 29 March.
    expect(freshness('2026-10-24T12:00:00Z', '2026-10-25T12:00:00Z')).toBe('yesterday');
    expect(freshness('2026-03-28T12:00:00Z', '2026-03-29T12:00:00Z')).toBe('yesterday');
    expect(freshness('2026-03-29T00:30:00Z', '2026-03-29T22:30:00Z')).toBe('today, 00:30');
    expect(freshness('2026-03-20T12:00:00Z', '2026-03-30T12:00:00Z')).toBe('10 days ago');
    expect(freshness('2026-01-02T12:00:00Z', '2026-03-30T12:00:00Z')).toBe('2 Jan 2026');
  });
});
