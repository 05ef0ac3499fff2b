import { computeColumn } from '../expression/evaluate';
import { namesOrNone, spokenOf } from '../expression/names';
import type { Task } from '../task/task';
import type { Column } from '../table/column';
import type { Table } from '../table/table';
import { acrossColumn } from './rowMeasure';
import type { ComputedSpec } from './specs';
import { windowColumn } from './windowColumn';

/** How a column is made, without what it is called. */
export type Making = Pick<ComputedSpec, 'expression' | 'across' | 'window'>;

/**
 * A column made in whichever way its spec says.
 * @throws UnknownColumn, ExpressionError
 */
export function* computedColumn(
  table: Table,
  { expression, across, window }: Making,
  facts: { readonly id: string; readonly name: string; readonly unit: string },
): Task<Column> {
  if (across) return yield* acrossColumn(table, across, facts);
  if (window) return yield* windowColumn(table, window, facts);
  return yield* computeColumn(table, expression ?? '', facts);
}

/** The columns that a made one names, in its order; those inside an expression too. */
export function columnsNamed({ expression, across, window }: Making): string[] {
  if (expression !== undefined) return namesOrNone(expression);
  const named = across?.columns ?? [
    ...(window
      ? [
          ...(window.of === undefined ? [] : [window.of]),
          ...window.by,
          ...window.order.map(({ column }) => column),
        ]
      : []),
  ];
  return named.flatMap(spokenOf);
}
