import { answerFact, answerFooting, answerHead, answerTally } from './tables';
import { answerValues } from './column';
import { answerKnown } from './known';
import { answerHeads, answerLedger } from './ledger';
import { answerLines } from './lines';
import { answerRows } from './rows';
import { onSession, type Handlers } from './handler';

/** What a page asks for in order to show a bench. */
export const SHOWN = {
  resolve: (sessions, args) => sessions.resolve(args),
  ledger: onSession<'ledger'>(answerLedger),
  lines: onSession<'lines'>(answerLines),
  heads: onSession<'heads'>(answerHeads),
  answer: onSession<'answer'>(answerTally),
  head: onSession<'head'>(answerHead),
  rows: onSession<'rows'>(answerRows),
  fact: onSession<'fact'>(answerFact),
  footing: onSession<'footing'>(answerFooting),
  known: onSession<'known'>(answerKnown),
  values: onSession<'values'>(answerValues),
} satisfies Partial<Handlers>;
