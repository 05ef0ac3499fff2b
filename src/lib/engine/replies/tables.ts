import { z } from 'zod';
import { Condition } from '../../core/selection/condition';
import { Wish } from '../../core/tally/wish/wish';
import { Fault } from '../../core/tally/spec/fault';
import { CALENDAR_PERIODS } from '../../core/table/period';
import { Figure, FigureRow, FigureType, Mark } from '../../core/tally/answer/result';
import { Warning } from '../../core/tally/trust/warnings';
import { Tally } from '../../core/tally/spec/specs';

/** A column of a tally's table, as the page draws it. */
export const TableColumn = z.strictObject({
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
  /** Others are parts of it. */
  whole: z.boolean(),
  words: z.string(),
  /** The measure in words and the column it is of; empty where the figures are of none. */
  measure: z.string(),
  of: z.string(),
  /** What stands over it and its neighbours: the group across, or the condition; empty without one. */
  over: z.string(),
});
export type TableColumn = z.infer<typeof TableColumn>;

/** A table of a tally but its rows. */
export const TableHead = z.strictObject({
  name: z.string(),
  caption: z.string(),
  labels: z.int(),
  /** Rows of the table, folded ones too. */
  length: z.int(),
  /** Levels that fold; 0 where none do. */
  levels: z.int(),
  /** A chart of it needs all its rows in their own order. */
  drawnWhole: z.boolean(),
  columns: z.array(TableColumn),
  /** Which of its columns of figures these are: of a wide table some, from place `from`. */
  across: z.strictObject({ from: z.int(), of: z.int() }),
});
export type TableHead = z.infer<typeof TableHead>;

/** A tally on the page but its rows. */
export const Answered = z.strictObject({
  sentence: z.string(),
  /** Why there are no tables; empty where there are. */
  refused: z.string(),
  faults: z.array(Fault),
  warnings: z.array(Warning),
  records: z.int(),
  tables: z.array(TableHead),
  /** Columns that the second half of a nested tally is asked of; null where it has none. */
  innerColumns: z
    .array(z.strictObject({ id: z.string(), name: z.string(), type: FigureType, unit: z.string() }))
    .nullable(),
});
export type Answered = z.infer<typeof Answered>;

export const Row = z.strictObject({
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

/** Rows as they are looked at, in the columns of the head with the same `across`. */
export const Rows = z.strictObject({
  /** Rows there are in view. */
  length: z.int(),
  rows: z.array(Row),
  /** The row of the whole, which may stand far below; null where there is none. */
  whole: Row.nullable(),
});

/** A tally in small. */
export const Sketch = z.strictObject({
  sentence: z.string(),
  refused: z.string(),
  fact: z.string(),
  table: TableHead.nullable(),
  rows: z.array(Row),
});
export type Sketch = z.infer<typeof Sketch>;

/** A question that can be asked of a list. */
export const Begin = z.strictObject({
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

/** A tally that a wish may mean. */
export const Offered = z.strictObject({
  kind: z.string(),
  question: z.string(),
  sentence: z.string(),
  tally: Tally,
  wish: Wish,
  /** What narrows to the records that were asked of, and the same in words. */
  narrow: z.array(Condition),
  narrowWords: z.array(z.string()),
  /** Words that were not understood, as they were typed. */
  left: z.array(z.string()),
  /** Word by word what it was read as; empty where it was not. */
  read: z.array(z.strictObject({ typed: z.string(), as: z.string() })),
  /** Words that were taken for others, which are near. */
  taken: z.array(z.strictObject({ typed: z.string(), takenFor: z.string() })),
});
export type Offered = z.infer<typeof Offered>;
