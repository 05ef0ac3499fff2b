import { agrees, type KnownTotal } from '../../core/check/known';
import type { CitedFigure } from '../../core/check/cited';
import type { Task } from '../../core/task/task';
import { figureText } from '../../core/tally/answer/figureText';
import type { Session } from '../session';
import type { CitedNow, KnownNow } from '../replies/checks';
import { figureNow } from './figureNow';

/** Every known total of the bench beside the figure as it is now. */
export function* answerKnown(session: Session): Task<KnownNow[]> {
  const out: KnownNow[] = [];
  for (const known of session.doc.known) out.push(yield* compared(session, known));
  return out;
}

function* compared(session: Session, known: KnownTotal): Task<KnownNow> {
  const { id, tally, source, note, place } = known;
  const about = { id, tally, source, note };
  const lost = (why: string): KnownNow => ({
    ...about,
    place,
    where: '',
    title: '',
    figure: '',
    known: String(known.value),
    difference: '',
    stands: 'lost',
    why,
  });
  const now = yield* figureNow(session, known);
  if ('lost' in now) return lost(now.lost);
  const { figure, column, where } = now;
  if (typeof figure !== 'number') return lost('There is no figure at its place.');
  const text = (value: number): string => figureText(column, value, session.doc.formats);
  return {
    ...about,
    place: now.place,
    where,
    title: column.title,
    figure: text(figure),
    known: text(known.value),
    difference: text(figure - known.value),
    stands: agrees(known, figure) ? 'agrees' : 'differs',
    why: '',
  };
}

/** Every figure that stands in the words of the report, as it is now. */
export function* answerCited(session: Session): Task<CitedNow[]> {
  const out: CitedNow[] = [];
  for (const cited of session.doc.cited) out.push(yield* asItIs(session, cited));
  return out;
}

function* asItIs(session: Session, cited: CitedFigure): Task<CitedNow> {
  const { id, tally, read, place } = cited;
  const now = yield* figureNow(session, cited);
  if ('lost' in now)
    return {
      id,
      tally,
      place,
      where: '',
      title: '',
      figure: read,
      read,
      stands: 'lost',
      why: now.lost,
    };
  const figure = figureText(now.column, now.figure, session.doc.formats);
  return {
    id,
    tally,
    place: now.place,
    where: now.where,
    title: now.column.title,
    figure,
    read,
    stands: figure === read ? 'same' : 'moved',
    why: '',
  };
}
