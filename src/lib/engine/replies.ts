import { z } from 'zod';
import { Bytes } from '../core/table/bytes';
import { AskResult } from '../core/ask/result';
import { FigureRecord } from '../core/bench/figureRecord';
import { Fault } from '../core/tally/fault';
import { Footing } from '../core/tally/footing';
import { Condition } from '../core/scope/condition';
import { CALENDAR_PERIODS } from '../core/table/period';
import { Figure, FigurePlace, FigureRow, FigureType, Mark } from '../core/tally/result';
import { Warning } from '../core/tally/warnings';
import { Tally } from '../core/tally/specs';
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

/** A column of a tally's table, as the page draws it. */
export const TableColumn = z.object({
  key: z.string(),
  title: z.string(),
  unit: z.string(),
  type: FigureType,
  right: z.boolean(),
  /** Whether its figures can be opened to their records. */
  opens: z.boolean(),
  /** Dates behind the labels of periods: the span that each stands for. */
  grain: z.enum(CALENDAR_PERIODS).optional(),
  /** Whether the values behind its labels are numbers or dates, which a chart can set on an axis. */
  scalar: z.boolean(),
  partOf: z.int().optional(),
  says: z.string(),
  /** The measure in words and the column it is of; empty where the figures are of none. */
  measure: z.string(),
  of: z.string(),
});
export type TableColumn = z.infer<typeof TableColumn>;

/** A table of a tally but its rows. */
export const TableHead = z.object({
  name: z.string(),
  caption: z.string(),
  labels: z.int(),
  /** Rows of the table, folded ones too. */
  length: z.int(),
  /** Levels that fold; 0 where none do. */
  levels: z.int(),
  columns: z.array(TableColumn),
});
export type TableHead = z.infer<typeof TableHead>;

/** A tally on the page but its rows. */
export const Answered = z.object({
  sentence: z.string(),
  /** Why there are no tables; empty where there are. */
  refused: z.string(),
  faults: z.array(Fault),
  warnings: z.array(Warning),
  records: z.int(),
  tables: z.array(TableHead),
  /** Columns that the second half of a nested tally is asked of; null where it has none. */
  innerColumns: z
    .array(z.object({ id: z.string(), name: z.string(), type: FigureType, unit: z.string() }))
    .nullable(),
});
export type Answered = z.infer<typeof Answered>;

export const Row = z.object({
  /** Its place in the table, whatever the order it is looked at in. */
  place: z.int(),
  kind: FigureRow.shape.kind,
  level: z.int(),
  keys: z.array(Figure),
  cells: z.array(z.string()),
  /** The figures in full, by column: what a chart draws. */
  figures: z.array(Figure),
  marks: z.array(Mark),
  /** Whether its parts show; null where it has none. */
  open: z.boolean().nullable(),
});
export type Row = z.infer<typeof Row>;

/** What a chart shows besides the figures of the tables. */
export const Shape = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  /** How all values fall: counts between edges, and those beyond them. */
  z.object({
    kind: z.literal('bins'),
    edges: z.array(z.number()),
    counts: z.array(z.int()),
    under: z.int(),
    over: z.int(),
    least: z.number(),
    most: z.number(),
    name: z.string(),
    unit: z.string(),
    decimals: z.int(),
  }),
  /** All values in order: at or under each value, which share. */
  z.object({
    kind: z.literal('curves'),
    name: z.string(),
    unit: z.string(),
    curves: z.array(
      z.object({
        label: z.string(),
        values: z.array(z.number()),
        shares: z.array(z.number()),
        count: z.int(),
      }),
    ),
    others: z.int(),
  }),
  /** Points of two columns: each by itself with its record, or, of very many, counted in cells. */
  z.object({
    kind: z.literal('points'),
    x: z.object({ name: z.string(), unit: z.string() }),
    y: z.object({ name: z.string(), unit: z.string() }),
    /** Side by side: along, up, the place of the record, and its group among `groups`; -1 for none. */
    points: z.array(z.tuple([z.number(), z.number(), z.int(), z.int()])),
    groups: z.array(z.string()),
    /** Counts of cells of equal size; empty where all points are there. */
    cells: z.array(z.tuple([z.number(), z.number(), z.int()])),
    cell: z.tuple([z.number(), z.number()]),
    count: z.int(),
    /** Lines from end to end, the whole first; the bounds of a prediction around the whole. */
    lines: z.array(
      z.object({
        label: z.string(),
        from: z.tuple([z.number(), z.number()]),
        to: z.tuple([z.number(), z.number()]),
      }),
    ),
    band: z.array(z.tuple([z.number(), z.number(), z.number()])),
  }),
  /** One column of the table by groups, a line for each group over the same periods. */
  z.object({
    kind: z.literal('series'),
    steps: z.array(z.string()),
    lines: z.array(
      z.object({
        name: z.string(),
        values: z.array(z.number().nullable()),
        /** The keys of each figure’s row. */
        keys: z.array(z.array(Figure)),
      }),
    ),
    title: z.string(),
    unit: z.string(),
    share: z.boolean(),
    /** Groups that have no line here. */
    others: z.int(),
  }),
]);
export type Shape = z.infer<typeof Shape>;

/** A question that can be asked of a list. */
export const Begin = z.object({
  kind: z.string(),
  question: z.string(),
  /** Other words it is found by. */
  found: z.string(),
  /** The wish can hardly mean another question. */
  meant: z.boolean(),
  /** Null where the list lacks what `needs` says. */
  tally: Tally.nullable(),
  needs: z.string(),
  sentence: z.string(),
});
export type Begin = z.infer<typeof Begin>;

/** A known total beside the figure as it is now. */
export const KnownNow = z.object({
  id: z.string(),
  tally: z.string(),
  source: z.string(),
  note: z.string(),
  /** Where its figure stands now: a place in a ranking may be another than it was. */
  place: FigurePlace,
  /** Its row and its column in words. */
  where: z.string(),
  title: z.string(),
  figure: z.string(),
  known: z.string(),
  /** Figure less known. */
  difference: z.string(),
  /** lost: there is no such figure any more, for the reason in `why`. */
  stands: z.enum(['agrees', 'differs', 'lost']),
  why: z.string(),
});
export type KnownNow = z.infer<typeof KnownNow>;

/** A figure that stands in the words of the report, as it is now. */
export const CitedNow = z.object({
  id: z.string(),
  tally: z.string(),
  place: FigurePlace,
  /** Its row and its column in words. */
  where: z.string(),
  title: z.string(),
  /** The figure now; where it is lost, as it was read last. */
  figure: z.string(),
  /** As it was when the words were read last. */
  read: z.string(),
  stands: z.enum(['same', 'moved', 'lost']),
  why: z.string(),
});
export type CitedNow = z.infer<typeof CitedNow>;

/** A tally in small. */
export const Sketch = z.object({
  sentence: z.string(),
  refused: z.string(),
  fact: z.string(),
  table: TableHead.nullable(),
  rows: z.array(Row),
});
export type Sketch = z.infer<typeof Sketch>;

/** A value, with all the ways of writing it that look the same. */
const Choice = z.object({
  text: z.string(),
  count: z.int(),
  spellings: z.array(z.object({ text: z.string(), count: z.int() })),
});

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
    items: z.array(Choice),
    others: z.int(),
  }),
  z.object({ kind: z.literal('none') }),
]);
export type Distribution = z.infer<typeof Distribution>;

/** A tally's figures against what they were over an older reading. */
export const MovedTally = z.object({
  id: z.string(),
  name: z.string(),
  says: z.string(),
  /** Why nothing could be compared; '' where it was. */
  why: z.string(),
  /** Figures that stand in both readings, and how many of them moved. */
  compared: z.int(),
  count: z.int(),
  /** The first of them, the largest relative change first. */
  moved: z.array(
    z.object({
      where: z.string(),
      title: z.string(),
      before: z.string(),
      after: z.string(),
      change: z.string(),
      share: z.number().nullable(),
    }),
  ),
  /** Rows that only one of the readings has. */
  came: z.array(z.string()),
  went: z.array(z.string()),
});
export type MovedTally = z.infer<typeof MovedTally>;

export const Moved = z.object({
  against: z.string(),
  /** Records that the bench sets aside, corrects or names, and that the older reading has not. */
  lost: z.int(),
  tallies: z.array(MovedTally),
});
export type Moved = z.infer<typeof Moved>;

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
  /** The record that carries most of the figure, by its place, and what it would be without it. */
  rests: z.object({ record: z.int(), says: z.string(), much: z.boolean() }).nullable(),
  /** Whether its records are those of two readings that moved it: `movedRecords` lists them. */
  moved: z.boolean(),
  /** Columns of the record list. */
  columns: z.array(z.object({ name: z.string(), right: z.boolean() })),
  canCheck: z.boolean(),
  /** A number that a known total can stand on, and whether it is a fraction shown as per cent. */
  numeric: z.boolean(),
  share: z.boolean(),
  /** What narrows to these records; null where no condition says it. */
  condition: Condition.nullable(),
});
export type Behind = z.infer<typeof Behind>;

export const BehindRecord = z.object({ record: z.int(), cells: z.array(LineCell) });
export type BehindRecord = z.infer<typeof BehindRecord>;

/** A record that moved a figure between two readings. */
export const MovedRecordRow = z.object({
  how: z.enum(['came', 'went', 'changed']),
  /** Its number in this reading, or in the older one where it went. */
  number: z.int(),
  /** Its place in this reading; null where it went. */
  record: z.int().nullable(),
  cells: z.array(z.string()),
});
export type MovedRecordRow = z.infer<typeof MovedRecordRow>;

export const MovedRecords = z.object({
  total: z.int(),
  columns: z.array(z.object({ name: z.string(), right: z.boolean() })),
  /** Those that moved it most first. */
  records: z.array(MovedRecordRow),
});
export type MovedRecords = z.infer<typeof MovedRecords>;

/** What each request is answered with. */
export const Replies = {
  stand: Counts,
  ledger: LedgerPage,
  lines: z.array(Line),
  heads: z.array(Distribution),
  answer: Answered,
  rows: z.object({ length: z.int(), rows: z.array(Row) }),
  shape: Shape,
  fact: z.object({ text: z.string(), foots: z.boolean().nullable() }),
  questions: z.array(Begin),
  sketch: Sketch,
  known: z.array(KnownNow),
  cited: z.array(CitedNow),
  figureRecord: FigureRecord,
  footing: Footing,
  behind: Behind,
  behindRecords: z.array(BehindRecord),
  check: z.object({
    difference: z.string(),
    explanations: z.array(
      z.object({
        says: z.string(),
        records: z.array(z.int()),
        remedy: z
          .discriminatedUnion('do', [
            z.object({ do: z.literal('setAside') }),
            z.object({ do: z.literal('putBack') }),
            z.object({ do: z.literal('switchOff'), rung: z.int() }),
          ])
          .optional(),
      }),
    ),
  }),
  locate: z.object({ line: z.int() }),
  locateRecord: z.object({ line: z.int() }),
  recordsOn: z.object({ records: z.array(z.int()) }),
  labels: z.array(z.string()),
  copy: z.object({ text: z.string(), html: z.string(), rows: z.int(), guarded: z.int() }),
  moved: Moved,
  movedRecords: MovedRecords,
  asked: AskResult,
  countedRecords: z.object({ records: z.int(), arrow: Bytes }),
  file: z.object({ text: z.string(), rows: z.int(), guarded: z.int() }),
  facts: ColumnFacts,
  values: z.object({
    items: z.array(Choice),
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
  other: z.object({
    records: z.int(),
    columns: z.array(
      z.object({ id: z.string(), name: z.string(), type: FigureType, unit: z.string() }),
    ),
    keys: z.array(
      z.object({ column: z.string(), with: z.string(), found: z.number(), single: z.boolean() }),
    ),
  }),
  match: z.object({
    fault: Fault.nullable(),
    /** How the keys meet; null where they cannot be looked up. */
    meets: z
      .object({
        records: z.int(),
        matched: z.int(),
        /** Records whose own key is blank. */
        blank: z.int(),
        /** Keys that the other list has not, the commonest first, and how many there are. */
        missing: z.array(z.object({ key: z.string(), records: z.int() })),
        missingKeys: z.int(),
        /** Keys of the other list that nothing here uses. */
        never: z.array(z.string()),
        neverKeys: z.int(),
        /** Keys that stand there more than once. */
        repeated: z.array(z.object({ key: z.string(), records: z.int() })),
        repeatedKeys: z.int(),
      })
      .nullable(),
    /** The first counted records with what they would get. */
    shown: z
      .object({
        heads: z.array(z.object({ name: z.string(), unit: z.string(), right: z.boolean() })),
        rows: z.array(z.object({ record: z.int(), cells: z.array(z.string()) })),
      })
      .nullable(),
  }),
  uses: z.array(z.string()),
  draft: z.object({
    /** What is wrong and where, in characters of the expression; null: nothing. */
    fault: z
      .object({
        start: z.int(),
        end: z.int(),
        message: z.string(),
        remedy: z.string(),
        /** What to write there instead. */
        fix: z.string().nullable(),
      })
      .nullable(),
    /** What it comes to; null where it is at fault. */
    column: z
      .object({
        type: z.string(),
        /** Columns it is made of, and itself as the last. */
        heads: z.array(z.object({ name: z.string(), unit: z.string(), right: z.boolean() })),
        /** How many columns it is made of. */
        of: z.int(),
        /** The first counted records; `none`: why there is no value. */
        rows: z.array(z.object({ record: z.int(), cells: z.array(z.string()), none: z.string() })),
        /** What came out of all records; null where only the first were looked at. */
        all: z
          .object({
            values: z.int(),
            blank: z.int(),
            unread: z.int(),
            none: z.int(),
            lowest: z.string(),
            highest: z.string(),
            /** The end that lies far off all others, by the record's number. */
            far: z.object({ record: z.int(), text: z.string() }).nullable(),
            distinct: z.int().nullable(),
          })
          .nullable(),
      })
      .nullable(),
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
