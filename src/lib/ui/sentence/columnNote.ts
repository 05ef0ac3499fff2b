import { typeName, type ColumnType } from '../../core/table/column';
import type { Counts } from '../../engine/protocol';

type Offered = Counts['columns'][number];

/** What a column may be used as: figures of an inner result are numbers, whatever they are written as. */
export function usedAs({ type }: Pick<Offered, 'type'>): ColumnType {
  return type === 'count' || type === 'share' || type === 'rank' ? 'number' : type;
}

/** What stands beside a column's name in a menu: its unit, or else its type. */
export const columnNote = (column: Offered): string => column.unit || typeName[usedAs(column)];
