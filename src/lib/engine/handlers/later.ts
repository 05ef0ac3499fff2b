import { answerAlikeCells } from './alikeCells';
import { answerOffers, answerQuestions, answerSketch } from './begin';
import { answerBehind, answerBehindRecords, answerCheck } from './behind';
import { answerRecordCells } from './recordCells';
import { answerElsewhere } from './elsewhere';
import { answerFacts } from './column';
import { answerFigureRecord } from './figureRecord';
import { answerCopy } from './copy';
import { answerMatch, answerOther } from './join';
import { answerCited } from './known';
import { answerLabels } from './ledger';
import { answerLocate, answerLocateRecord, answerRecordsOn } from './locate';
import { answerDraft, answerUses } from './made';
import { answerMoved } from './moved';
import { answerMovedRecords } from './movedRecords';
import { answerAsked, answerCountedRecords } from './outgoing';
import { answerShape } from './shape';
import { answerTry } from './try';
import { onSession, type Handlers } from './handler';

/** What is asked for by an act, to look behind, hand over, try, prepare; and what draws a chart. */
export const LATER = {
  offers: onSession<'offers'>(answerOffers),
  questions: onSession<'questions'>(answerQuestions),
  sketch: onSession<'sketch'>(answerSketch),
  behind: onSession<'behind'>(answerBehind),
  behindRecords: onSession<'behindRecords'>(answerBehindRecords),
  check: onSession<'check'>(answerCheck),
  cited: onSession<'cited'>(answerCited),
  figureRecord: onSession<'figureRecord'>(answerFigureRecord),
  locate: onSession<'locate'>(answerLocate),
  locateRecord: onSession<'locateRecord'>(answerLocateRecord),
  recordsOn: onSession<'recordsOn'>(answerRecordsOn),
  copy: onSession<'copy'>(answerCopy),
  moved: onSession<'moved'>(answerMoved),
  movedRecords: onSession<'movedRecords'>(answerMovedRecords),
  elsewhere: onSession<'elsewhere'>(answerElsewhere),
  asked: onSession<'asked'>(answerAsked),
  countedRecords: onSession<'countedRecords'>(answerCountedRecords),
  facts: onSession<'facts'>(answerFacts),
  labels: onSession<'labels'>(answerLabels),
  shape: onSession<'shape'>(answerShape),
  try: onSession<'try'>(answerTry),
  recordCells: onSession<'recordCells'>(answerRecordCells),
  alikeCells: onSession<'alikeCells'>(answerAlikeCells),
  draft: onSession<'draft'>(answerDraft),
  other: onSession<'other'>(answerOther),
  match: onSession<'match'>(answerMatch),
  uses: onSession<'uses'>(answerUses),
} satisfies Partial<Handlers>;
