import { BadAsk } from '$lib/core/errors';
import { answerAsk, type Answered } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import type { AskResult } from '$lib/core/ask/result';
import { finish } from '$lib/core/task/task';
import type { Table } from '$lib/core/table/table';
import { tableOf } from '$lib/core/tally/answer/answer';
import type { TallyInput } from '$lib/core/tally/input/input';
import { behind as behindFigure, type FigureBehind } from '$lib/core/tally/behind/behind';
import type { Figure, FigurePlace, TallyResult } from '$lib/core/tally/answer/result';

/** An ask with its figures still open to questions. */
export function answeredOn(
  table: Table,
  ask: Record<string, unknown>,
  others: Record<string, Table> = {},
): Answered & { readonly input: TallyInput } {
  const answered = finish(
    answerAsk({ name: 'Sailings', table, others: new Map(Object.entries(others)) }, readAsk(ask)),
  );
  return { ...answered, input: answered.resolved.input };
}

/** What stands behind a figure of a result that became plain data and is read back. */
export const behind = (input: TallyInput, result: TallyResult, place: FigurePlace): FigureBehind =>
  finish(behindFigure(input, { ...result, tables: result.tables.map(tableOf) }, place));

export const answered = (
  table: Table,
  ask: Record<string, unknown>,
  others: Record<string, Table> = {},
): AskResult => answeredOn(table, ask, others).result;

/** The first table of the first tally as objects by title, totals and others left in. */
export function rows(
  result: AskResult,
  table: number | string = 0,
  tally = 0,
): Record<string, Figure>[] {
  const { tables } = result.tallies[tally];
  const found = typeof table === 'number' ? tables[table] : tables.find((t) => t.name === table);
  if (!found) throw new Error(`no table ${table}`);
  return found.rows.map((row) =>
    Object.fromEntries(found.columns.map((c, k) => [c.title, row.cells[k]])),
  );
}

/** Only the groups: no totals, no "all others". */
export function groups(
  result: AskResult,
  table: number | string = 0,
  tally = 0,
): Record<string, Figure>[] {
  const { tables } = result.tallies[tally];
  const found = typeof table === 'number' ? tables[table] : tables.find((t) => t.name === table);
  return rows(result, table, tally).filter((_, k) => found?.rows[k].kind === 'group');
}

/** Faults of an ask as `path: message remedy`. */
export function faultsOf(work: () => unknown): string[] {
  try {
    work();
  } catch (error) {
    if (error instanceof BadAsk)
      return error.faults.map((f) => `${f.path}: ${f.message} ${f.remedy}`);
    throw error;
  }
  return [];
}
