import { z } from 'zod';
import type { Do } from '../engine/protocol';

/** What can be asked, as a list that the compiler holds against the protocol. */
const DOES: Record<Do, true> = {
  resolve: true,
  ledger: true,
  lines: true,
  heads: true,
  answer: true,
  known: true,
  cited: true,
  figureRecord: true,
  head: true,
  rows: true,
  shape: true,
  fact: true,
  questions: true,
  sketch: true,
  footing: true,
  behind: true,
  behindRecords: true,
  check: true,
  locate: true,
  locateRecord: true,
  recordsOn: true,
  labels: true,
  offers: true,
  copy: true,
  moved: true,
  movedRecords: true,
  elsewhere: true,
  asked: true,
  countedRecords: true,
  facts: true,
  values: true,
  try: true,
  recordCells: true,
  alikeCells: true,
  draft: true,
  other: true,
  match: true,
  uses: true,
};
const isDo = (value: unknown): value is Do => typeof value === 'string' && value in DOES;

/** From the page to the engine's worker. What a request carries is checked by its own schema. */
export const ToEngine = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('open'), reading: z.int(), base: z.string() }),
  /** Gives up all that is being computed. */
  z.strictObject({ kind: z.literal('stop') }),
  z.strictObject({
    kind: z.literal('ask'),
    id: z.int(),
    lane: z.string(),
    ask: z.custom<Do>(isDo),
    args: z.unknown(),
  }),
]);
export type ToEngine = z.infer<typeof ToEngine>;
