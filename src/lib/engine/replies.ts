import { z } from 'zod';
import { Fault } from '../core/tally/fault';
import { Footing } from '../core/tally/footing';
import { Figure, FigureRow, FigureType, Mark, Warning } from '../core/tally/result';
import { CellStateName, States } from './cellStates';

export const LineCell = z.object({ text: z.string(), state: CellStateName });
export type LineCell = z.infer<typeof LineCell>;

export const Line = z.object({
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
});
export type Line = z.infer<typeof Line>;

const Count = z.object({ records: z.int(), lead: z.string() });

/** What counts, rung by rung, and what does not fit the list. */
export const Counts = z.object({
  token: z.int(),
  all: Count,
  rungs: z.array(
    Count.extend({
      id: z.string(),
      /** Whether it narrows; a step that does not fit is switched off whatever its switch says. */
      on: z.boolean(),
      /** Why it does not fit; empty where it does. */
      fault: z.string(),
      says: z.string(),
      removed: z.int(),
      blank: z.int(),
      unread: z.int(),
    }),
  ),
  narrowed: Count,
  setAside: Count,
  counted: Count,
  columns: z.array(
    z.object({ id: z.string(), name: z.string(), type: FigureType, unit: z.string() }),
  ),
  /** Everything that does not fit and takes no part, by its path in the bench. */
  faults: z.array(Fault),
  warnings: z.array(Warning),
  /** Cells of the list that could not be read. */
  unread: z.int(),
});
export type Counts = z.infer<typeof Counts>;

export const Head = z.object({
  column: z.string().nullable(),
  /** Key of the figures in the answer (`m1`), or null where it shows cells alone. */
  figure: z.string().nullable(),
  name: z.string(),
  unit: z.string(),
  /** Words of the measure, where it needs saying. */
  says: z.string(),
  right: z.boolean(),
  width: z.int(),
  fixed: z.boolean(),
});
export type Head = z.infer<typeof Head>;

/** The whole of a ledger on the page but its lines. */
export const LedgerPage = z.object({
  sentence: z.string(),
  levels: z.array(z.string()),
  naming: z.object({ column: z.string(), name: z.string() }).nullable(),
  heads: z.array(Head),
  /** Width of the column of groups. */
  groupWidth: z.int(),
  lines: z.int(),
  /** All, narrowed, counted; the texts stand under the heads. */
  foot: z.array(z.object({ records: z.int(), cells: z.array(z.string()) })),
  /** Keys under which groups look the same but for case or outer spaces: their places and how many. */
  loose: z.array(z.object({ key: z.int(), merges: z.int() })),
  /** Parts that do not fit, by their path in the tally. */
  faults: z.array(Fault),
});
export type LedgerPage = z.infer<typeof LedgerPage>;

/** A tally on the page but its rows. */
export const Answered = z.object({
  sentence: z.string(),
  /** Why there are no tables; empty where there are. */
  refused: z.string(),
  faults: z.array(Fault),
  warnings: z.array(Warning),
  tables: z.array(
    z.object({
      name: z.string(),
      caption: z.string(),
      labels: z.int(),
      length: z.int(),
      columns: z.array(
        z.object({
          key: z.string(),
          title: z.string(),
          unit: z.string(),
          type: FigureType,
          right: z.boolean(),
        }),
      ),
    }),
  ),
});
export type Answered = z.infer<typeof Answered>;

export const Row = z.object({
  kind: FigureRow.shape.kind,
  level: z.int(),
  keys: z.array(Figure),
  cells: z.array(z.string()),
  marks: z.array(Mark),
});
export type Row = z.infer<typeof Row>;

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

export const ColumnFacts = z.object({
  column: z.string(),
  name: z.string(),
  type: z.string(),
  unit: z.string(),
  facts: z.array(z.object({ name: z.string(), value: z.string() })),
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

/** What each request is answered with. */
export const Replies = {
  stand: Counts,
  ledger: LedgerPage,
  lines: z.array(Line),
  heads: z.array(Distribution),
  answer: Answered,
  rows: z.array(Row),
  footing: Footing,
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
  recordCells: z.array(
    z.object({
      column: z.string(),
      name: z.string(),
      text: z.string(),
      state: CellStateName,
      was: z.string(),
    }),
  ),
} as const;
