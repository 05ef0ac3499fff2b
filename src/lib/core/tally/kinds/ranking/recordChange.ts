import { columnFor } from '../../../expression/columnFor';
import type { Task } from '../../../task/task';
import type { Bitset } from '../../../table/bitset';
import { fullCell } from '../../../table/cell';
import type { ScalarColumn } from '../../../table/column';
import { counted } from '../../../table/format';
import type { TallyInput } from '../../input/input';
import type { FigureColumn } from '../../answer/result';
import { warn, type Warning } from '../../trust/warnings';
import { changeCells, changeColumns, comparedPeriods } from './change';
import { rankBy } from './rankBy';
import type { RankingSpec } from './spec';

/** Places of what the records of two periods name, by the columns that name it. */
export interface RecordChange {
  readonly columns: readonly FigureColumn[];
  cells(record: number): (number | null)[];
  readonly warnings: readonly Warning[];
}

/**
 * Ranks the records of each period among themselves; a record has the places of those with its key.
 * A key that stands more than once in a period has no place there, and it is said.
 */
export function* recordChange(
  input: TallyInput,
  spec: RankingSpec,
  selection: Bitset,
  column: ScalarColumn,
): Task<RecordChange | null> {
  const { change } = spec;
  if (!change) return null;
  const compared = yield* comparedPeriods(input, change, selection);
  const keys = change.match.map((ref) => columnFor(input.table, ref));
  const keyOf = (record: number): string => keys.map((key) => fullCell(key, record)).join('\u001f');
  const places: Map<string, number>[] = [];
  let repeated = 0;
  for (const within of compared.within) {
    const { order, places: at } = yield* rankBy(
      within,
      column,
      spec.from === 'highest',
      spec.ties,
      input.order,
    );
    const byKey = new Map<string, number>();
    const twice = new Set<string>();
    order.forEach((record, k) => {
      const key = keyOf(record);
      if (byKey.has(key)) twice.add(key);
      else byKey.set(key, at[k]);
    });
    for (const key of twice) byKey.delete(key);
    repeated += twice.size;
    places.push(byKey);
    yield undefined;
  }
  const [was, is] = places;
  return {
    columns: changeColumns(compared),
    cells(record) {
      const key = keyOf(record);
      return changeCells(was.get(key), is.get(key));
    },
    warnings:
      repeated > 0
        ? [
            warn(
              'repeated-keys',
              `${counted(repeated, 'key')} ${repeated === 1 ? 'stands' : 'stand'} more than once in a period and ${repeated === 1 ? 'has' : 'have'} no place there.`,
            ),
          ]
        : [],
  };
}
