import { TYPE_PHRASES, type ColumnType } from '../table/column';

/** The type of a value; `null` is that of a bare NULL, which fits every other. */
export type ValueType = ColumnType | 'null';

/** As a fault says them: those of columns, but that a yes or no is a condition here. */
export const TYPE_WORDS: Readonly<Record<ValueType, string>> = {
  ...TYPE_PHRASES,
  yesno: 'a condition (yes or no)',
  null: 'NULL',
};
