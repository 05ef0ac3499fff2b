import type { Ask } from '../ask/ask';
import { VERSION } from '../ask/version';
import { BadAsk } from '../errors';
import { Bench, type TrayItem } from './document';
import { newView } from './trayEdits';

/**
 * An ask as a bench on a reading: the way back from `askOf`. Its tallies make the tray, in their
 * order; nothing is looked at in a special way yet.
 * @throws BadAsk where it asks of other lists as well
 */
export function benchOf(ask: Ask, reading: number): Bench {
  const { version: _v, leaveOut: _l, also, tallies, ladder, ...question } = ask;
  if (also.length)
    throw new BadAsk([
      {
        path: 'also',
        message: `A bench is of one list, and this asks of “${also[0].of}” as well.`,
        remedy: 'Take “also” out, and open it as a bench of that list.',
      },
    ]);
  const rungs = ladder.rungs.map((rung, k) => ({ ...rung, id: rung.id || `r${k + 1}` }));
  const tray = tallies.map(({ title, ...tally }, k): TrayItem => ({
    id: `${tally.kind}-${k + 1}`,
    ...(title !== undefined && { name: title }),
    tally,
    view: newView(tally),
    note: '',
  }));
  return Bench.parse({
    version: VERSION,
    reading,
    ...question,
    ladder: { ...ladder, rungs },
    tray,
    open: tray[0].id,
  });
}
