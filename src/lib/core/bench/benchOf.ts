import type { Ask } from '../ask/ask';
import { Bench, type TrayItem } from './document';
import { newView } from './trayEdits';

/**
 * An ask as a bench on a reading: the way back from `askOf`. Its tallies make the tray, in their
 * order; nothing is looked at in a special way yet.
 */
export function benchOf(ask: Ask, reading: number): Bench {
  const { version: _v, leaveOut: _l, tallies, ladder, ...question } = ask;
  const rungs = ladder.rungs.map((rung, k) => ({ ...rung, id: rung.id || `r${k + 1}` }));
  const tray = tallies.map(({ title, ...tally }, k): TrayItem => ({
    id: `${tally.kind}-${k + 1}`,
    ...(title !== undefined && { name: title }),
    tally,
    view: newView(tally),
    note: '',
  }));
  return Bench.parse({
    version: 3,
    reading,
    ...question,
    ladder: { ...ladder, rungs },
    tray,
    open: tray[0].id,
  });
}
