import { answerFact, answerFooting, answerHead, answerTally } from '../answers/answer';
import { answerValues } from '../answers/column';
import { answerKnown } from '../answers/known';
import { answerHeads, answerLedger } from '../answers/ledger';
import { answerLines } from '../answers/lines';
import { answerRows } from '../answers/rows';
import { onHeld, type Handlers } from './handler';

/** What a page asks for in order to show a bench. */
export const SHOWN = {
  stand: (stands, args) => stands.stand(args),
  ledger: onHeld<'ledger'>(answerLedger),
  lines: onHeld<'lines'>(answerLines),
  heads: onHeld<'heads'>(answerHeads),
  answer: onHeld<'answer'>(answerTally),
  head: onHeld<'head'>(answerHead),
  rows: onHeld<'rows'>(answerRows),
  fact: onHeld<'fact'>(answerFact),
  footing: onHeld<'footing'>(answerFooting),
  known: onHeld<'known'>(answerKnown),
  values: onHeld<'values'>(answerValues),
} satisfies Partial<Handlers>;
