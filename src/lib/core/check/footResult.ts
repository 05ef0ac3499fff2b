import { columnFor } from '../expression/columnFor';
import { valuesOf } from '../measure/valuesOf';
import { recordsOf, selectionOf, type Base } from '../tally/base';
import type { FigureTable, TallyResult } from '../tally/result';
import { directTotal } from './footing';
import type { ResultFooting } from './resultFooting';

/**
 * Adds parts down and across and compares them with their whole, within n · 2⁻⁵² of the sum of
 * magnitudes; and compares grand totals of sums with a sum reckoned straight over the records.
 */
export function footResult(base: Base, result: TallyResult): ResultFooting {
  let compared = 0;
  let failure: ResultFooting['failure'] = null;
  const fail = (table: FigureTable, row: number, column: number, difference: number): void => {
    failure ??= { table: table.name, row, column: table.columns[column].key, difference };
  };
  for (const table of result.tables) {
    compared +=
      footDown(table, fail) + footAcross(table, fail) + footWhole(base, result, table, fail);
  }
  const notAdding = result.tables.flatMap((t) =>
    t.columns.filter((c) => c.measure && !c.adds && !c.where).map((c) => c.title),
  );
  return {
    foots: failure === null,
    compared,
    failure,
    notAdding: [...new Set(notAdding)],
    says:
      failure !== null
        ? 'The table does not foot.'
        : compared === 0
          ? 'There is nothing to add up.'
          : 'The table foots: parts add up to their whole.',
  };
}

type Fail = (table: FigureTable, row: number, column: number, difference: number) => void;

const numberAt = (table: FigureTable, row: number, column: number): number => {
  const cell = table.rows[row].cells[column];
  return typeof cell === 'number' ? cell : 0;
};

function footDown(table: FigureTable, fail: Fail): number {
  const parts = new Map<number, number[]>();
  table.rows.forEach(({ partOf }, k) => {
    if (partOf === undefined) return;
    const list = parts.get(partOf);
    if (list) list.push(k);
    else parts.set(partOf, [k]);
  });
  let compared = 0;
  table.columns.forEach(({ adds }, c) => {
    if (!adds) return;
    for (const [whole, rows] of parts) {
      compared++;
      const difference =
        compensated(rows.map((r) => numberAt(table, r, c))) - numberAt(table, whole, c);
      if (Math.abs(difference) > adds.bound) fail(table, whole, c, difference);
    }
  });
  return compared;
}

function footAcross(table: FigureTable, fail: Fail): number {
  const parts = new Map<number, number[]>();
  table.columns.forEach(({ partOf, adds }, c) => {
    if (partOf === undefined || !adds) return;
    const list = parts.get(partOf);
    if (list) list.push(c);
    else parts.set(partOf, [c]);
  });
  let compared = 0;
  for (const [whole, columns] of parts)
    table.rows.forEach((_, row) => {
      compared++;
      const difference =
        compensated(columns.map((c) => numberAt(table, row, c))) - numberAt(table, row, whole);
      if (Math.abs(difference) > (table.columns[whole].adds?.bound ?? 0))
        fail(table, row, whole, difference);
    });
  return compared;
}

/** Grand totals of sums against the records themselves, without any group. */
function footWhole(base: Base, result: TallyResult, table: FigureTable, fail: Fail): number {
  const [first] = table.rows;
  if (!first || first.kind !== 'total' || first.where) return 0;
  const records = recordsOf(selectionOf(base, result.scope));
  let compared = 0;
  table.columns.forEach(({ measure, adds, where }, c) => {
    if (!adds || where || measure?.kind !== 'sum' || measure.column === undefined) return;
    compared++;
    const { total } = directTotal(valuesOf(columnFor(base.table, measure.column)).values, records);
    const difference = numberAt(table, 0, c) - total;
    if (Number.isFinite(total) && Math.abs(difference) > adds.bound) fail(table, 0, c, difference);
  });
  return compared;
}

function compensated(values: readonly number[]): number {
  let [sum, lost] = [0, 0];
  for (const v of values) {
    const t = sum + v;
    const b = t - sum;
    lost += sum - (t - b) + (v - b);
    sum = t;
  }
  return sum + lost;
}
