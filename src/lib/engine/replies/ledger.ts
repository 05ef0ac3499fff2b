import { z } from 'zod';
import { Fault } from '../../core/tally/spec/fault';
import { Figure } from '../../core/tally/answer/result';
import { States } from '../cellStates';

export const Line = z.strictObject({
  kind: z.enum(['group', 'total', 'record']),
  level: z.int(),
  label: z.string(),
  /** Keys from the first level down; empty for records. */
  keys: z.array(Figure),
  /** Counted records of a group. */
  count: z.int(),
  /** Records of the group set aside. */
  aside: z.int(),
  open: z.boolean(),
  /** Whether the cells hold the group's figures. */
  totals: z.boolean(),
  /** Record number, or -1. */
  record: z.int(),
  /** Texts of the cells; empty where the line has none. */
  cells: z.array(z.string()),
  /** The state of each cell (see `stateAt`). */
  states: States,
  /** Of sums that leave records out, `29 of 31` at their cells; without one of them, empty. */
  gaps: z.array(z.string()),
});
export type Line = z.infer<typeof Line>;

export const Head = z.strictObject({
  column: z.string().nullable(),
  /** Key of the figures in the answer (`m1`), or null where it shows cells alone. */
  figure: z.string().nullable(),
  name: z.string(),
  unit: z.string(),
  /** Words of the measure, where it needs saying. */
  words: z.string(),
  right: z.boolean(),
  width: z.int(),
  fixed: z.boolean(),
});
export type Head = z.infer<typeof Head>;

/** The whole of a ledger on the page but its lines. */
export const LedgerPage = z.strictObject({
  sentence: z.string(),
  levels: z.array(z.string()),
  naming: z.strictObject({ column: z.string(), name: z.string() }).nullable(),
  heads: z.array(Head),
  /** Width of the column of groups. */
  groupWidth: z.int(),
  /** Whether records stand among the lines. */
  showsRecords: z.boolean(),
  lines: z.int(),
  /** All, narrowed, counted; the texts stand under the heads. */
  foot: z.array(
    z.strictObject({ records: z.int(), cells: z.array(z.string()), gaps: z.array(z.string()) }),
  ),
  /** Keys under which groups look the same but for case or outer spaces: their places and how many. */
  loose: z.array(z.strictObject({ key: z.int(), merges: z.int() })),
  /** Parts that do not fit, by their path in the tally. */
  faults: z.array(Fault),
});
export type LedgerPage = z.infer<typeof LedgerPage>;
