import { columnsInSteps } from '../expression/columnFor';
import { fromSlice } from '../measure/fromSlices';
import type { MeasureKind } from '../measure/measure';
import { inStretches, STRIDE, type Task } from '../task/task';
import { isText, type Column, type ScalarColumn } from '../table/column';
import type { Table } from '../table/table';
import type { AcrossSpec } from './specs';

type RowKind = Extract<AcrossSpec['measure'], MeasureKind> | 'second' | 'lead';

/**
 * A measure across columns within each record; blanks and unread cells are skipped and can be
 * counted. Without a value: values, blanks and sum count as 0, all else is none. On a tie the first
 * of the columns holds the highest or lowest, and the second highest equals the highest: its lead
 * is 0. One value alone has no second and no lead.
 */
export function* acrossColumn(
  table: Table,
  spec: AcrossSpec,
  facts: { id: string; name: string; unit: string },
): Task<Column> {
  const columns = (yield* columnsInSteps(table, spec.columns)).filter(
    (c): c is ScalarColumn => !isText(c),
  );
  return spec.measure === 'highestColumn' || spec.measure === 'lowestColumn'
    ? yield* holder(table.length, columns, spec.measure === 'highestColumn' ? 1 : -1, facts)
    : yield* measured(table.length, columns, spec.measure, facts);
}

/** Records between two pauses: each costs as much as there are columns. */
const recordsFor = (columns: readonly ScalarColumn[]): number =>
  Math.max(1, Math.floor((STRIDE >> 2) / columns.length));

function* holder(
  length: number,
  columns: readonly ScalarColumn[],
  sign: number,
  facts: { id: string; name: string; unit: string },
): Task<Column> {
  // Columns of one name are one text.
  const names = [...new Set(columns.map((c) => c.name))];
  const of = columns.map((c) => names.indexOf(c.name));
  const codes = new Int32Array(length).fill(-1);
  const hold = (begin: number, end: number): void => {
    for (let i = begin; i < end; i++) {
      let best = -Infinity;
      for (let k = 0; k < columns.length; k++) {
        const v = columns[k].values[i] * sign;
        if (!(v > best)) continue;
        best = v;
        codes[i] = of[k];
      }
    }
  };
  yield* inStretches(length, hold, recordsFor(columns));
  return {
    ...facts,
    unit: '',
    type: 'text',
    codes,
    dictionary: names,
  };
}

function* measured(
  length: number,
  columns: readonly ScalarColumn[],
  kind: RowKind,
  facts: { id: string; name: string; unit: string },
): Task<Column> {
  const values = new Float64Array(length);
  const row = new Float64Array(columns.length);
  const measure = (begin: number, end: number): void => {
    for (let i = begin; i < end; i++) {
      let n = 0;
      for (const column of columns) {
        const v = column.values[i];
        if (v === v) row[n++] = v;
      }
      values[i] = kind === 'blanks' ? columns.length - n : rowFigure(kind, row, n);
    }
  };
  yield* inStretches(length, measure, recordsFor(columns));
  const counts = kind === 'values' || kind === 'blanks' || kind === 'distinct';
  const decimals = counts
    ? 0
    : Math.max(0, ...columns.map((c) => c.decimals)) + (kind === 'mean' || kind === 'sd' ? 1 : 0);
  const type =
    !counts &&
    ['min', 'max', 'second', 'median'].includes(kind) &&
    columns.every((c) => c.type === columns[0].type)
      ? (columns[0]?.type ?? 'number')
      : 'number';
  return { ...facts, type, values, unread: new Map(), decimals, percent: false, grain: 'day' };
}

/** One measure of the first n values of a row; they are moved about. */
function rowFigure(kind: RowKind, row: Float64Array, n: number): number {
  if (kind === 'values') return n;
  let sum = 0;
  let lost = 0;
  let min = Infinity;
  let max = -Infinity;
  let second = -Infinity;
  for (let k = 0; k < n; k++) {
    const t = sum + row[k];
    const b = t - sum;
    lost += sum - (t - b) + (row[k] - b);
    sum = t;
    min = Math.min(min, row[k]);
    second = Math.max(second, Math.min(max, row[k]));
    max = Math.max(max, row[k]);
  }
  sum += lost;
  if (kind === 'sum') return sum;
  if (n === 0) return kind === 'distinct' ? 0 : NaN;
  switch (kind) {
    case 'mean':
      return sum / n;
    case 'min':
      return min;
    case 'max':
      return max;
    case 'range':
      return max - min;
    case 'second':
      return n < 2 ? NaN : second;
    case 'lead':
      return n < 2 ? NaN : max - second;
    case 'sd': {
      if (n < 2) return NaN;
      let squares = 0;
      for (let k = 0; k < n; k++) squares += (row[k] - sum / n) ** 2;
      return Math.sqrt(squares / (n - 1));
    }
    default:
      return fromSlice({ kind }, row, 0, n);
  }
}
