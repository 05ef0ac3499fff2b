import { agrees, type KnownTotal } from '../../core/check/known';
import { NoSuchFigure, EngineError } from '../../core/errors';
import type { Steps } from '../../core/steps/steps';
import { figureText } from '../../core/tally/figureText';
import { keysOfRow } from '../../core/tally/answer';
import { findFigure } from '../../core/tally/behind';
import type { Held } from '../held';
import type { KnownNow } from '../replies';

/** Every known total of the bench beside the figure as it is now. */
export function* answerKnown(held: Held): Steps<KnownNow[]> {
  const out: KnownNow[] = [];
  for (const known of held.doc.known) out.push(yield* compared(held, known));
  return out;
}

function* compared(held: Held, known: KnownTotal): Steps<KnownNow> {
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
  try {
    const { answer, refused } = yield* held.answer(known.tally, known.scope);
    if (!answer) return lost(refused || 'Its tally has no figures.');
    const { row, column, at, table } = findFigure(answer, place);
    const figure = row.cells[at];
    const text = (value: number): string => figureText(column, value, held.doc.formats);
    if (typeof figure !== 'number') return lost('There is no figure at its place.');
    const labels = row.cells.slice(0, table.labels).filter((label) => label !== null);
    return {
      ...about,
      place:
        typeof place.row === 'number'
          ? place
          : { ...place, row: [...keysOfRow(row, table.labels)] },
      where: labels.join(' › '),
      title: column.title,
      figure: text(figure),
      known: text(known.value),
      difference: text(figure - known.value),
      stands: agrees(known, figure) ? 'agrees' : 'differs',
      why: '',
    };
  } catch (error) {
    if (error instanceof NoSuchFigure) return lost('Its row or column is no longer there.');
    if (error instanceof EngineError && error.code === 'noTally')
      return lost('Its tally is no longer in the tray.');
    throw error;
  }
}
