import { z } from 'zod';
import { KeyType } from '../../arrange/groupCodes';
import { Measure } from '../../measure/measure';
import { Condition } from '../../selection/condition';
import { Calendar, CALENDAR_PERIODS } from '../../table/period';
import { Warning } from '../trust/warnings';

/**
 * What every kind of tally comes to: tables of figures, as plain data that can be stored, sent and
 * read back. Each row and column says which records it stands on, as a condition; the figure where
 * they cross stands on the records that meet both (see `behind`).
 */

/** A figure in full: a number, a text (dates in ISO 8601), or null: none. */
export const Figure = z.union([z.number(), z.string(), z.null()]);
export type Figure = z.infer<typeof Figure>;

/** How a column of figures is written. `share` is a fraction: 0.25 is 25 %. */
export const FIGURE_TYPES = [
  'text',
  'number',
  'count',
  'share',
  'rank',
  'date',
  'datetime',
  'time',
  'yesno',
] as const;
export const FigureType = z.enum(FIGURE_TYPES);
export type FigureType = z.infer<typeof FigureType>;

export const FigureColumn = z.object({
  /** Stable within its table; the head of the column in a delimited file when the title is not unique. */
  key: z.string(),
  title: z.string(),
  unit: z.string().default(''),
  type: FigureType,
  /** Label columns: the type of the values that stand for the labels (see `keys` of a row). */
  keyType: KeyType.optional(),
  /** Numbers that are fractions shown as per cent. */
  percent: z.boolean().optional(),
  /** Dates: the span that each stands for, and where its years begin. */
  grain: z.enum(CALENDAR_PERIODS).optional(),
  calendar: Calendar.optional(),
  /** Decimals that the figures are shown with; left out: as many as are needed. */
  decimals: z.int().optional(),
  /** Or significant digits. */
  significant: z.int().optional(),
  /** The measure whose figures these are; left out for labels and for what follows from other figures. */
  measure: Measure.optional(),
  /** The list's column whose values stand here as they are in its records; no measure is of them. */
  column: z.string().optional(),
  /** Numbers without thousands marks: years, numbers that name something. */
  plain: z.boolean().optional(),
  /** Columns of a cross-tab: the values of the groups that the column stands for. */
  keys: z.array(Figure).optional(),
  /** The records it is limited to; a rung of this condition narrows to them. */
  where: Condition.optional(),
  /** Parts add up to their whole: the place of the column this one is a part of. */
  partOf: z.int().optional(),
  /** Sum and count columns: figures of rows add up. `bound`: how far rounding may take them apart. */
  adds: z.object({ bound: z.number() }).optional(),
  /**
   * Rows that the figure stands on besides its own, among those of its level: as distances (-1: the
   * row before), `above`: all from the first, `run`: those before it that share its `run`.
   */
  reach: z.union([z.array(z.int()), z.enum(['above', 'run'])]).optional(),
  /** The arithmetic in words, where no measure says it: `change against the period before ÷ its size`. */
  words: z.string().optional(),
});
export type FigureColumn = z.infer<typeof FigureColumn>;

export const Mark = z.object({
  /** The place of the column marked; left out: the whole row. */
  column: z.int().optional(),
  kind: z.enum(['few', 'rests', 'gaps', 'partial', 'tie', 'forecast', 'heldOut', 'doubt']),
  words: z.string(),
  /** Kind “rests”: the record that carries the figure, and what the figure would be without it. */
  record: z.int().min(1).optional(),
  without: Figure.optional(),
  /** The same in two or three words, to stand beside the figure: `29 of 31`. */
  short: z.string().optional(),
});
export type Mark = z.infer<typeof Mark>;

/** The marks of a row, where it has any. */
export const marked = (marks: readonly Mark[]): { marks?: Mark[] } =>
  marks.length ? { marks: [...marks] } : {};

/** The standard deviation of the values whose mean stands in a column. */
export const Deviation = z.object({ column: z.int(), value: z.number().nullable() });
export type Deviation = z.infer<typeof Deviation>;

export const FigureRow = z.object({
  /**
   * group: one group, band, period or record; total: its parts are the rows that name it; others:
   * the rest in one line; outside: counted, but in none of the rows.
   */
  kind: z.enum(['group', 'total', 'others', 'outside']),
  /** 0: the outermost level. */
  level: z.int().default(0),
  cells: z.array(Figure),
  /**
   * The values behind the labels, one for each label that the row has: 2022 behind "2,022", the
   * first day behind "Jan–Mar 2022", null behind "blank". Left out: the labels themselves.
   */
  keys: z.array(Figure).optional(),
  /** The records it is limited to; a rung of this condition narrows to them. */
  where: Condition.optional(),
  /** Kind “others”: how many groups or records stand in this one line. */
  stands: z.int().optional(),
  /** The place of the row this one is a part of. */
  partOf: z.int().optional(),
  /** A record among groups: its cells are those of the table's `recordColumns`. */
  record: z.literal(true).optional(),
  marks: z.array(Mark).optional(),
  /** Standard deviations (n − 1) of the row's means, for those that are shown with them; null: none. */
  deviations: z.array(Deviation).optional(),
  /** Measures of the row's own, by their columns, where a column holds the figures of several. */
  measures: z.array(z.object({ column: z.int(), measure: Measure })).optional(),
  /** Figures of the row that stand on other records than those of the row. */
  instead: z.array(z.object({ columns: z.array(z.int()), where: Condition })).optional(),
  /** Rows of one run are added up to date together: the year, in a rollup. */
  run: z.int().optional(),
});
export type FigureRow = z.infer<typeof FigureRow>;

/** The column that a figure of a row is written by: with the row's own measure, where it has one there. */
export function columnOfFigure(
  columns: readonly FigureColumn[],
  { measures }: Pick<FigureRow, 'measures'>,
  at: number,
): FigureColumn {
  const own = measures?.find(({ column }) => column === at);
  return own ? { ...columns[at], measure: own.measure } : columns[at];
}

export const FigureTable = z.object({
  /** `main`, or what it holds besides: `methods`, `points`. */
  name: z.string(),
  caption: z.string(),
  /** The first so many columns are labels. */
  labels: z.int(),
  /** All rows together make the whole: those in places, and all others in one. */
  whole: z.boolean().optional(),
  columns: z.array(FigureColumn),
  /** The columns that rows of records are written by, where they stand among groups. */
  recordColumns: z.array(FigureColumn).optional(),
  rows: z.array(FigureRow),
});
export type FigureTable = z.infer<typeof FigureTable>;

/** Which records a tally uses (calculations, section 1). */
export const ScopeName = z.enum(['counted', 'narrowed', 'all']);
export type ScopeName = z.infer<typeof ScopeName>;

export const TallyResult = z.object({
  kind: z.string(),
  /** The sentence: what it computes, in plain English. */
  words: z.string(),
  scope: ScopeName,
  /** Records it was computed from. */
  records: z.int(),
  tables: z.array(FigureTable),
  warnings: z.array(Warning),
});
export type TallyResult = z.infer<typeof TallyResult>;

/** A result with the heading its tally was given. */
export type AskedTally = TallyResult & { readonly title?: string | undefined };

/**
 * A figure's place in an answer: its table by name or number, its row by number or by the keys of
 * its labels (which stay when other rows come or go), its column by key, title or number.
 */
export const FigurePlace = z.object({
  table: z.union([z.string(), z.int()]).default(0),
  row: z.union([z.int().min(0), z.array(Figure)]),
  column: z.union([z.string(), z.int()]),
});
export type FigurePlace = z.infer<typeof FigurePlace>;

/** a ÷ b as a figure; none where b is 0. */
export const shareOf = (a: number, b: number): number | null => figureOf(b === 0 ? NaN : a / b);

/** (b − a) ÷ |a|; NaN where a is 0 or either is none. */
export const relativeChange = (a: number, b: number): number =>
  a === 0 ? NaN : (b - a) / Math.abs(a);

/** A number as a figure: NaN is none, and so is what no double can hold; −0 is 0, as JSON writes it. */
export const figureOf = (value: number): number | null =>
  Number.isFinite(value) ? value + 0 : null;
