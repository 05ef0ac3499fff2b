import { z } from 'zod';
import { SortKey } from '../arrange/sortKey';
import { COLUMN_TYPES, type ColumnType } from '../table/column';
import { MEASURE_KINDS } from '../measure/measure';

const name = z.string().min(1).max(200);

/** A column worked out from others of the same record. */
export const ComputedSpec = z.strictObject({
  name,
  /** What the rest calls it by, where that is another than its name: it was renamed since. */
  id: name.optional(),
  unit: z.string().max(40).default(''),
  /** Scalar expression of standard SQL (docs/expressions.md). */
  expression: z.string().max(20_000).optional(),
  /** Or a measure across columns of the record: row totals, row means, which column holds the highest. */
  across: z
    .strictObject({
      measure: z.enum([
        ...([
          'values',
          'blanks',
          'sum',
          'mean',
          'median',
          'min',
          'max',
          'range',
          'product',
          'sd',
          'distinct',
          'geometricMean',
        ] as const satisfies readonly (typeof MEASURE_KINDS)[number][]),
        'second',
        'lead',
        'highestColumn',
        'lowestColumn',
      ]),
      columns: z.array(z.string()).min(1).max(1000),
    })
    .optional(),
  /** Or a figure of the record among those of its group: its place, its share, the value before it. */
  window: z
    .strictObject({
      figure: z.enum([
        'rank',
        'percentileRank',
        'number',
        'running',
        'share',
        'previous',
        'change',
      ]),
      /** The column that it is of; a number in the order is of none. */
      of: z.string().optional(),
      /** Columns whose equal values make a group; all records are one without any. */
      by: z.array(z.string()).max(6).default([]),
      /** The order that records are followed in; that of the file unless given. */
      order: z.array(SortKey).max(6).default([]),
      /** Ranks: 1 is the highest. */
      descending: z.boolean().default(true),
    })
    .optional(),
});
export type ComputedSpec = z.infer<typeof ComputedSpec>;
/** What the rest calls a computed column. */
export const idOfComputed = ({ id, name }: Pick<ComputedSpec, 'id' | 'name'>): string => id ?? name;
/** A figure of a record among those of its group. */
export type WindowSpec = NonNullable<ComputedSpec['window']>;
/** Types of columns that a figure within groups can be of; a number in the order is of none. */
export const WINDOW_TYPES: Readonly<Record<WindowSpec['figure'], readonly ColumnType[]>> = {
  rank: ['number', 'date', 'datetime', 'time'],
  percentileRank: ['number', 'date', 'datetime', 'time'],
  number: COLUMN_TYPES,
  running: ['number', 'yesno'],
  share: ['number', 'yesno'],
  previous: COLUMN_TYPES,
  change: ['number', 'date', 'datetime'],
};
/** Whether a figure within groups looks at which record comes after which. */
export const followsOrder = (figure: WindowSpec['figure']): boolean =>
  !['rank', 'percentileRank', 'share'].includes(figure);
/** A measure across columns of a record. */
export type AcrossSpec = NonNullable<ComputedSpec['across']>;

/** Columns brought from another list by equal keys (calculations, section 12). */
export const JoinSpec = z.strictObject({
  /** The other list, by the name the ask gives it. */
  list: z.string(),
  /** Columns that must be equal: here, and there (the same name unless given). */
  on: z
    .array(z.strictObject({ column: z.string(), with: z.string().optional() }))
    .min(1)
    .max(10),
  bring: z
    .array(
      z.strictObject({
        column: z.string(),
        /** Name it gets here; the same unless given. */
        as: name.optional(),
        /** What the rest calls it by, where that is another than its name: it was renamed since. */
        id: name.optional(),
        /** Which one, or what of them, where a key stands more than once there. */
        repeated: z.enum(['first', 'last', 'sum', 'mean', 'min', 'max', 'values']).optional(),
      }),
    )
    .min(1)
    .max(200),
  /** Case and outer spaces of text keys are ignored. */
  loose: z.boolean().default(true),
});
export type JoinSpec = z.infer<typeof JoinSpec>;
type Brought = JoinSpec['bring'][number];
/** What a brought column is called here. */
export const broughtAs = ({ as, column }: Brought): string => as ?? column;
/** What the rest calls a brought column. */
export const idOfBrought = (brought: Brought): string => brought.id ?? broughtAs(brought);
/** The same while it is being made: nothing may be brought yet. */
export const JoinDraft = JoinSpec.extend({ bring: z.array(JoinSpec.shape.bring.element).max(200) });

/** A table with a column for each thing as one record for each thing, or back. */
export const ReshapeSpec = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('stack'),
    columns: z.array(z.string()).min(1).max(1000),
    /** Name of the column that says which column a value stood in. */
    name: name.default('Name'),
    value: name.default('Value'),
    /** Records for cells without a value are left out. */
    dropBlanks: z.boolean().default(false),
  }),
  z.strictObject({
    do: z.literal('unstack'),
    /** Its distinct texts become columns. */
    name: z.string(),
    value: z.string(),
    /** What of several values of one record and column; refused unless given. */
    repeated: z.enum(['first', 'last', 'sum', 'mean', 'min', 'max', 'values']).optional(),
  }),
]);
export type ReshapeSpec = z.infer<typeof ReshapeSpec>;
