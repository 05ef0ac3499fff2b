import { z } from 'zod';
import { Condition } from '../../core/selection/condition';
import { LineCell } from './cell';

export const Behind = z.strictObject({
  figure: z.string(),
  unit: z.string(),
  words: z.string(),
  where: z.string(),
  /** Records, and of them without a value. */
  records: z.int(),
  values: z.int(),
  blanks: z.int(),
  unread: z.int(),
  arithmetic: z.string(),
  warning: z.string(),
  /** The record that carries most of the figure, by its place, and what it would be without it. */
  rests: z.strictObject({ record: z.int(), words: z.string(), much: z.boolean() }).nullable(),
  /** Whether its records are those of two readings that moved it: `movedRecords` lists them. */
  moved: z.boolean(),
  /** The other list that its row stands on as well: `elsewhere` lists its records; null where there is none. */
  elsewhere: z.string().nullable(),
  /** Columns of the record list. */
  columns: z.array(z.strictObject({ name: z.string(), right: z.boolean() })),
  canCheck: z.boolean(),
  /** A number that a known total can stand on, and whether it is a fraction shown as per cent. */
  numeric: z.boolean(),
  share: z.boolean(),
  /** What narrows to these records; null where no condition says it. */
  condition: Condition.nullable(),
});
export type Behind = z.infer<typeof Behind>;

export const BehindRecord = z.strictObject({ record: z.int(), cells: z.array(LineCell) });
export type BehindRecord = z.infer<typeof BehindRecord>;
