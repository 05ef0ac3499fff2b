import { CompensatedSum } from '../../../measure/compensated';
import { columnFor } from '../../../expression/columnFor';
import { inStretches, STRIDE, type Task } from '../../../task/task';
import { has, type Bitset } from '../../../table/bitset';
import { isText } from '../../../table/column';
import type { Table } from '../../../table/table';
import type { ComputedLedger } from './compute';
import type { Rows } from './rows';

/**
 * Running totals of a column over the records (calculations, section 3): of the counted values from the
 * first row of a record's group down to each row, by row.
 * @param counted records outside it have none and add nothing
 * @returns NaN for records that do not count, and for a column that is no number
 */
export function* runningRecords(
  table: Table,
  { tree }: Pick<ComputedLedger, 'tree'>,
  rows: Rows,
  counted: Bitset,
  ref: string | undefined,
): Task<Float64Array> {
  const out = new Float64Array(rows.records.length).fill(NaN);
  const column = ref === undefined ? null : columnFor(table, ref);
  if (!column || isText(column)) return out;
  let leaf = -1;
  let sum = new CompensatedSum();
  const { values } = column;
  yield* inStretches(
    rows.records.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const i = rows.records[k];
        if (tree.leafOf[i] !== leaf) {
          leaf = tree.leafOf[i];
          sum = new CompensatedSum();
        }
        if (!has(counted, i)) continue;
        const x = values[i];
        if (x === x) sum.add(x);
        out[k] = sum.value;
      }
    },
    STRIDE,
    true,
  );
  return out;
}
