import { answerOffers, answerQuestions, answerSketch } from '../answers/begin';
import { answerBehind, answerBehindRecords, answerCheck } from '../answers/behind';
import { answerRecordCells } from '../answers/recordCells';
import { answerFacts } from '../answers/column';
import { answerFigureRecord } from '../answers/figureRecord';
import { answerCopy } from '../answers/copy';
import { answerMatch, answerOther } from '../answers/join';
import { answerCited } from '../answers/known';
import { answerLabels } from '../answers/ledger';
import { answerLocate, answerLocateRecord, answerRecordsOn } from '../answers/locate';
import { answerDraft, answerUses } from '../answers/made';
import { answerMoved } from '../answers/moved';
import { answerMovedRecords } from '../answers/movedRecords';
import { answerAsked, answerCountedRecords } from '../answers/outgoing';
import { answerShape } from '../answers/shape';
import { answerTry } from '../answers/try';
import { onHeld, type Handlers } from './handler';

/** What is asked for by an act, to look behind, hand over, try, prepare; and what draws a chart. */
export const LATER = {
  offers: onHeld<'offers'>(answerOffers),
  questions: onHeld<'questions'>(answerQuestions),
  sketch: onHeld<'sketch'>(answerSketch),
  behind: onHeld<'behind'>(answerBehind),
  behindRecords: onHeld<'behindRecords'>(answerBehindRecords),
  check: onHeld<'check'>(answerCheck),
  cited: onHeld<'cited'>(answerCited),
  figureRecord: onHeld<'figureRecord'>(answerFigureRecord),
  locate: onHeld<'locate'>(answerLocate),
  locateRecord: onHeld<'locateRecord'>(answerLocateRecord),
  recordsOn: onHeld<'recordsOn'>(answerRecordsOn),
  copy: onHeld<'copy'>(answerCopy),
  moved: onHeld<'moved'>(answerMoved),
  movedRecords: onHeld<'movedRecords'>(answerMovedRecords),
  asked: onHeld<'asked'>(answerAsked),
  countedRecords: onHeld<'countedRecords'>(answerCountedRecords),
  facts: onHeld<'facts'>(answerFacts),
  labels: onHeld<'labels'>(answerLabels),
  shape: onHeld<'shape'>(answerShape),
  try: onHeld<'try'>(answerTry),
  recordCells: onHeld<'recordCells'>(answerRecordCells),
  draft: onHeld<'draft'>(answerDraft),
  other: onHeld<'other'>(answerOther),
  match: onHeld<'match'>(answerMatch),
  uses: onHeld<'uses'>(answerUses),
} satisfies Partial<Handlers>;
