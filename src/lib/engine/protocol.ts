import { z } from 'zod';
import { ResultFooting } from '../core/check/resultFooting';
import { Figure, TallyResult } from '../core/tally/result';
import type { Request } from './request';

export type { Place, Request, RequestOf } from './request';

/** '' read; b blank; u unread; c corrected; n no figure. */
const CellState = z.enum(['', 'b', 'u', 'c', 'n']);
export const LineCell = z.object({ t: z.string(), k: CellState });
export type LineCell = z.infer<typeof LineCell>;

export const Line = z.object({
  kind: z.enum(['group', 'total', 'record']),
  level: z.int(),
  label: z.string(),
  /** Labels from the first level down; empty for records. */
  path: z.array(z.string()),
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
  /** The state of each cell: one letter of `CellState` each, a dot for a read one. */
  states: z.string(),
});
export type Line = z.infer<typeof Line>;

const Count = z.object({ records: z.int(), lead: z.string() });

export const Head = z.object({
  column: z.string().nullable(),
  measure: z.int(),
  name: z.string(),
  unit: z.string(),
  /** Words of the measure, where it needs saying. */
  says: z.string(),
  right: z.boolean(),
  width: z.int(),
  fixed: z.boolean(),
});
export type Head = z.infer<typeof Head>;

export const Overview = z.object({
  all: Count,
  rungs: z.array(
    Count.extend({
      id: z.string(),
      on: z.boolean(),
      says: z.string(),
      removed: z.int(),
      blank: z.int(),
      unread: z.int(),
    }),
  ),
  narrowed: Count,
  setAside: Count,
  counted: Count,
  sentence: z.string(),
  levels: z.array(z.string()),
  naming: z.object({ column: z.string(), name: z.string() }).nullable(),
  heads: z.array(Head),
  /** Width of the column of groups. */
  groupWidth: z.int(),
  lines: z.int(),
  /** All, narrowed, counted; the texts stand under the heads. */
  foot: z.array(z.object({ records: z.int(), cells: z.array(z.string()) })),
  footing: z.object({ foots: z.boolean(), says: z.string() }),
  /** Keys under which groups look the same but for case or outer spaces: their places and how many. */
  loose: z.array(z.object({ key: z.int(), merges: z.int() })),
  unread: z.int(),
});
export type Overview = z.infer<typeof Overview>;

export const Distribution = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('bins'),
    edges: z.array(z.number()),
    labels: z.array(z.string()),
    counts: z.array(z.int()),
    /** Values before the first and behind the last edge. */
    under: z.int(),
    over: z.int(),
  }),
  z.object({
    kind: z.literal('values'),
    items: z.array(z.object({ text: z.string(), count: z.int() })),
    others: z.int(),
  }),
  z.object({ kind: z.literal('none') }),
]);
export type Distribution = z.infer<typeof Distribution>;

export const Fact = z.object({ name: z.string(), value: z.string() });
export const ColumnFacts = z.object({
  column: z.string(),
  name: z.string(),
  type: z.string(),
  unit: z.string(),
  facts: z.array(Fact),
  distribution: Distribution,
});
export type ColumnFacts = z.infer<typeof ColumnFacts>;

export const Behind = z.object({
  figure: z.string(),
  unit: z.string(),
  says: z.string(),
  where: z.string(),
  /** Records, and of them without a value. */
  records: z.int(),
  values: z.int(),
  blanks: z.int(),
  unread: z.int(),
  arithmetic: z.string(),
  warning: z.string(),
  /** Columns of the record list. */
  columns: z.array(z.object({ name: z.string(), right: z.boolean() })),
  canCheck: z.boolean(),
});
export type Behind = z.infer<typeof Behind>;

export const BehindRecord = z.object({ record: z.int(), cells: z.array(LineCell) });
export type BehindRecord = z.infer<typeof BehindRecord>;

export const Replies = {
  reckon: Overview,
  lines: z.array(Line),
  heads: z.array(Distribution),
  facts: ColumnFacts,
  values: z.object({
    items: z.array(z.object({ text: z.string(), count: z.int() })),
    more: z.int(),
    blank: z.int(),
  }),
  try: z.object({
    kept: z.int(),
    removed: z.int(),
    blank: z.int(),
    unread: z.int(),
    says: z.string(),
  }),
  behind: Behind,
  behindRecords: z.array(BehindRecord),
  check: z.object({
    difference: z.string(),
    explanations: z.array(z.object({ says: z.string(), records: z.array(z.int()) })),
  }),
  locate: z.object({ line: z.int() }),
  locateRecord: z.object({ line: z.int() }),
  recordsOn: z.object({ records: z.array(z.int()) }),
  labels: z.array(z.string()),
  copy: z.object({ text: z.string(), html: z.string(), rows: z.int(), guarded: z.int() }),
  file: z.object({ text: z.string(), rows: z.int(), guarded: z.int() }),
  tally: TallyResult.extend({ footing: ResultFooting }),
  tallyBehind: z.object({
    figure: Figure,
    records: z.array(z.int()),
    values: z.int(),
    blanks: z.int(),
    unread: z.int(),
    arithmetic: z.string(),
    warning: z.string(),
  }),
  recordCells: z.array(
    z.object({
      column: z.string(),
      name: z.string(),
      text: z.string(),
      state: CellState,
      was: z.string(),
    }),
  ),
} as const;
export type ReplyOf<K extends Request['do']> = z.infer<(typeof Replies)[K]>;
