import { looseForm } from '../core/arrange/groupCodes';
import type { GroupKey } from '../core/arrange/groupKey';
import { ofRecords, suits, type Measure } from '../core/measure/measure';
import { columnsAsked, type Ladder, type Rung } from '../core/scope/condition';
import { expressionIn } from '../core/expression/columnFor';
import { isText } from '../core/table/column';
import { columnOf, findColumn, type Table } from '../core/table/table';
import { deviationDigits, type Formats } from '../core/tally/ledger/figureText';
import type { LedgerSpec } from '../core/tally/ledger/spec';

/** The measures, and behind them the standard deviations that means are to be shown with. */
export function withDeviations(
  measures: readonly Measure[],
  formats: Formats,
): { measures: Measure[]; deviations: number[] } {
  const all = [...measures];
  const deviations = measures.map((m) =>
    deviationDigits(m, formats) ? all.push({ kind: 'sd', column: m.column }) - 1 : -1,
  );
  return { measures: all, deviations };
}

/** The spec without keys and measures whose column is gone or of a type they do not suit. */
export function fitting(table: Table, spec: LedgerSpec): LedgerSpec {
  const column = (id: string | undefined) => table.columns.find((c) => c.id === id);
  return {
    ...spec,
    groups: spec.groups.filter((g) => column(g.column)),
    sort: spec.sort.filter((s) => column(s.column)),
    measures: spec.measures.map((m) => {
      const c = column(m.column);
      return ofRecords(m.kind) || (c && suits(m.kind, c)) ? m : { kind: 'records' };
    }),
  };
}

/** The ladder with steps on columns that are gone switched off; the page says so. */
export function fittingLadder(table: Table, ladder: Ladder): Ladder {
  return {
    rungs: ladder.rungs.map((rung) =>
      lostColumn(table, rung) === null ? rung : { ...rung, on: false },
    ),
    setAside: {
      ...ladder.setAside,
      values: ladder.setAside.values.filter((v) => table.columns.some((c) => c.id === v.column)),
    },
  };
}

/** The first column a step asks about that the list no longer has; null where there is none. */
export function lostColumn(table: Table, rung: Rung): string | null {
  return (
    columnsAsked(rung.condition).find(
      (ref) => expressionIn(ref) === null && !findColumn(table.columns, ref),
    ) ?? null
  );
}

/** How many groups a key would merge if case and outer spaces were ignored. */
export function looseMerges(table: Table, key: GroupKey): number {
  const column = columnOf(table, key.column);
  if (!isText(column) || key.loose) return 0;
  return column.dictionary.length - new Set(column.dictionary.map(looseForm)).size;
}
