import { compute } from '../../core/ask/compute';
import { resolve, type Resolved } from '../../core/ask/resolve';
import { questionOf } from '../../core/bench/askOf';
import { moveBench } from '../../core/bench/move';
import { MOST_ROWS_COMPARED, movedFigures } from '../../core/check/movedFigures';
import { EngineError } from '../../core/errors';
import type { Task } from '../../core/task/task';
import { counted } from '../../core/table/format';
import { kindOf } from '../../core/tally/kind/kinds';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { MovedTally } from '../replies/moved';

/** The bench as it counts another reading. */
function* onReading(
  { list, doc }: Session,
  name: string,
): Task<{ readonly on: Resolved; readonly lost: number }> {
  const table = list.others.get(name);
  if (!table) throw new EngineError('noPlace', `There is no reading “${name}” at hand.`);
  const brought = yield* moveBench(doc, list.table, table, doc.reading);
  return { on: yield* resolve({ ...list, table }, questionOf(brought.doc)), lost: brought.lost };
}

/**
 * Every tally of the bench against the same over an older reading: the same question is stood on it,
 * records that the bench names found again there. A comparison is itself about readings and is left out.
 */
export function* answerMoved(
  session: Session,
  { with: older, to: newer }: ArgsOf<'moved'>,
): Task<ReplyOf<'moved'>> {
  const { doc } = session;
  const before = yield* onReading(session, older);
  const after = newer === undefined ? null : yield* onReading(session, newer);
  const tallies: MovedTally[] = [];
  for (const { id, name, tally } of doc.tray) {
    if (kindOf(tally).ofReadings) continue;
    const { answer } = after ? yield* compute(after.on, tally, 'tally') : yield* session.answer(id);
    const was = yield* compute(before.on, tally, 'tally');
    const about = { id, name: name ?? '', words: answer?.words ?? '' };
    const [now] = answer?.tables ?? [];
    const [then] = was.answer?.tables ?? [];
    if (!now || !then) {
      const why = !now ? 'It has no figures now.' : was.refused || 'It had no figures before.';
      tallies.push({ ...about, why, compared: 0, count: 0, moved: [], came: [], went: [] });
      continue;
    }
    const rows = Math.max(now.length, then.length);
    if (rows > MOST_ROWS_COMPARED) {
      const why = `It has ${counted(rows, 'row')}, too many to be set against those before one by one. Rank groups, or the first ones.`;
      tallies.push({ ...about, why, compared: 0, count: 0, moved: [], came: [], went: [] });
      continue;
    }
    const { compared, count, moved, came, went } = yield* movedFigures(then, now, doc.formats);
    tallies.push({
      ...about,
      why: '',
      compared,
      count,
      moved: [...moved],
      came: [...came],
      went: [...went],
    });
  }
  return { against: older, lost: before.lost, tallies };
}
