import type { ColumnType } from '../table/column';

/** The type of a value; `null` is that of a bare NULL, which fits every other. */
export type ValueType = ColumnType | 'null';

export const TYPE_WORDS: Record<ValueType, string> = {
  text: 'text',
  number: 'a number',
  date: 'a date',
  datetime: 'a date with time',
  time: 'a time',
  yesno: 'a condition (yes or no)',
  null: 'NULL',
};
