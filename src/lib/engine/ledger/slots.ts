import type { View } from '../../core/bench/document';
import { needsOther, type Measure } from '../../core/measure/measure';
import type { Task } from '../../core/task/task';
import { namesOf, type Table } from '../../core/table/table';
import type { LedgerSlot } from '../../core/tally/kinds/ledger/linesTable';
import type { LedgerSpec } from '../../core/tally/kinds/ledger/spec';
import { measureBelow } from '../../core/tally/sentence/words';

import { usualWidth } from './widths';

/** One column of the page's ledger. */
export interface Slot extends LedgerSlot {
  readonly width: number;
  /** Stays at the left while the rest scrolls. */
  readonly fixed: boolean;
}

export interface LedgerColumns {
  /** The column whose value names a record in the column of groups; null: the record's number. */
  readonly naming: string | null;
  readonly slots: readonly Slot[];
}

/** Ids of the list's columns in the order shown. */
export function columnOrder(table: Table, view: View): string[] {
  const listed = view.columns
    .map((c) => c.column)
    .filter((id) => table.columns.some((c) => c.id === id));
  const known = new Set(listed);
  return [...listed, ...table.columns.map((c) => c.id).filter((id) => !known.has(id))];
}

/** Whether a column is out of view: chosen so, or repeated by the groups. */
export function isHidden(
  id: string,
  spec: Pick<LedgerSpec, 'groups' | 'measures'>,
  view: View,
): boolean {
  const chosen = view.columns.find((c) => c.column === id)?.hidden;
  return chosen ?? spec.groups.some((key) => key.column === id && !key.period);
}

/**
 * Lays out the ledger's columns: each shown column with its first measure, further measures behind it.
 * @param totals each measure's grand total as shown; its width counts
 * @param made whether a column was made by the bench: its numbers name no record
 * @param records whether record lines show; where none do, columns without a measure give their room away
 */
export function* layoutColumns(
  table: Table,
  spec: Pick<LedgerSpec, 'groups' | 'measures'>,
  view: View,
  totals: readonly string[] = [],
  records = true,
  made: (id: string) => boolean = () => false,
): Task<LedgerColumns> {
  const shown = columnOrder(table, view).filter((id) => !isHidden(id, spec, view));
  const measuresOf = (id: string): number[] =>
    spec.measures.flatMap((m: Measure, k) => (m.column === id ? [k] : []));
  const isMadeNumber = (id: string): boolean =>
    made(id) && table.columns.find((c) => c.id === id)?.type === 'number';
  const naming = shown.find((id) => measuresOf(id).length === 0 && !isMadeNumber(id)) ?? null;
  const slots: Slot[] = [];
  const names = namesOf(table);
  const below = (measure: number): string =>
    measure < 0 ? '' : measureBelow(spec.measures[measure], names);
  for (const [at, id] of shown.filter((id) => id !== naming).entries()) {
    const column = table.columns.find((c) => c.id === id);
    const measures = measuresOf(id);
    // A figure of two columns stands beside the cells of the one, not above them.
    const first = measures.find((m) => needsOther(spec.measures[m].kind) !== 'sum') ?? -1;
    const rest = measures.filter((m) => m !== first);
    const given = view.columns.find((c) => c.column === id)?.width;
    const width = given ?? usualWidth(column, below(first), true, totals[first] ?? '');
    const fixed = at < view.fixed;
    slots.push({ column: id, measure: first, cells: true, width, fixed });
    for (const measure of rest)
      slots.push({
        column: id,
        measure,
        cells: spec.measures[measure].kind === 'running',
        width: given ?? usualWidth(column, below(measure), false, totals[measure] ?? ''),
        fixed,
      });
    // Cells were looked at for its width.
    yield undefined;
  }
  const shownIds = new Set(shown);
  spec.measures.forEach((m, measure) => {
    // A column hidden by choice takes its measures along; one that the groups repeat leaves them.
    const chosenAway = view.columns.find((c) => c.column === m.column)?.hidden === true;
    if (m.column === undefined || (!shownIds.has(m.column) && !chosenAway))
      slots.push({
        column: m.column ?? null,
        measure,
        cells: false,
        width: usualWidth(
          table.columns.find((c) => c.id === m.column),
          below(measure),
          false,
          totals[measure] ?? '',
        ),
        fixed: false,
      });
  });
  return { naming, slots: records ? slots : slots.filter((s) => s.measure >= 0) };
}
