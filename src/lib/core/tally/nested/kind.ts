import { z } from 'zod';
import type { Condition } from '../../scope/condition';
import { evaluate } from '../../scope/evaluate';
import { finish, type Steps } from '../../steps/steps';
import { and, emptyBitset, members, or } from '../../table/bitset';
import { isText, type Column } from '../../table/column';
import { counted } from '../../table/format';
import { namesOf } from '../../table/table';
import { selectionOf, wholeBase, type Base } from '../base';
import { Faults } from '../fault';
import { tallyCommon, TallyRefused, type TallyFigures, type TallyKind } from '../kind';
import type { FigureColumn, FigureRow, FigureTable, Where } from '../result';
import { resultTable } from '../resultTable';
import { SimpleTally, simpleKind } from '../simple';

/** A tally of another tally's groups: of each region, the highest of the sums by depot, and which. */
export const NestedSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('nested'),
  /** Reckoned from the records; its groups become the records of the outer one. */
  inner: SimpleTally,
  /** Which of the inner's tables; the first unless given. */
  table: z.string().default('main'),
  /** Columns are those of the inner result, by title or key (`m1`, `records`). */
  outer: SimpleTally,
});
export type NestedSpec = z.infer<typeof NestedSpec>;

/** Kinds whose columns are known before any record is. */
const FORESEEN = new Set(['ledger', 'frequency', 'spread', 'percentile', 'ranking', 'conditional']);

export const nestedKind: TallyKind<NestedSpec> = {
  kind: 'nested',
  spec: NestedSpec,
  check(spec, faults, path) {
    const before = faults.found.length;
    simpleKind(spec.inner).check(spec.inner, faults, `${path}.inner`);
    if (faults.found.length > before || !FORESEEN.has(spec.inner.kind)) return;
    const columns = foreseen(faults.columns, spec);
    if (!columns) return;
    const outer = new Faults(columns);
    simpleKind(spec.outer).check(spec.outer, outer, `${path}.outer`);
    faults.found.push(...outer.found);
  },
  reckon: reckonNested,
  describe(spec, names, listName) {
    const inner = simpleKind(spec.inner).describe(spec.inner, names, 'first');
    const outer = simpleKind(spec.outer).describe(
      spec.outer,
      names,
      'then, of those group results',
    );
    return `${listName}, ${inner.replace(/\.$/, '')}; ${outer}`;
  },
};

/** The columns the inner result will have, from a list without records. */
function foreseen(columns: readonly Column[], spec: NestedSpec): readonly Column[] | null {
  const empty = columns.map((c): Column =>
    isText(c)
      ? { ...c, codes: new Int32Array(0), dictionary: [] }
      : { ...c, values: new Float64Array(0), unread: new Map() },
  );
  try {
    const base = wholeBase({ length: 0, columns: empty });
    const { tables } = finish(simpleKind(spec.inner).reckon(base, spec.inner));
    const table = tables.find((t) => t.name === spec.table);
    return table ? resultTable(table).list.columns : null;
  } catch {
    return null;
  }
}

function* reckonNested(base: Base, spec: NestedSpec): Steps<TallyFigures> {
  const inner = yield* simpleKind(spec.inner).reckon(base, spec.inner);
  const table = inner.tables.find((t) => t.name === spec.table);
  if (!table)
    throw new TallyRefused(
      `The inner tally has no table “${spec.table}”; it has ${inner.tables.map((t) => `“${t.name}”`).join(', ')}.`,
    );
  const { list, rows } = resultTable(table);
  const outerBase: Base = { ...wholeBase(list, 'the group results'), others: base.others };
  const faults = new Faults(list.columns);
  simpleKind(spec.outer).check(spec.outer, faults, 'outer');
  const [fault] = faults.found;
  if (fault) throw new TallyRefused(`${fault.path}: ${fault.message} ${fault.remedy}`);
  const outer = yield* simpleKind(spec.outer).reckon(outerBase, spec.outer);
  const back = recordsBehind(base, spec, table, rows);
  const tables = outer.tables.map((t): FigureTable => ({
    ...t,
    columns: t.columns.map((c) => ownWords(c)),
    rows: t.rows.map((row): FigureRow => {
      if (!row.where) return row;
      return { ...row, where: back(outerBase, row.where) };
    }),
  }));
  const names = namesOf(base.table);
  return {
    tables,
    warnings: [
      {
        code: 'of-group-results',
        says: `Reckoned from ${counted(rows.length, 'group result')} (${simpleKind(spec.inner).describe(spec.inner, names, 'first').replace(/\.$/, '')}), not from the records: a mean of group results is not the mean of the records.`,
      },
      ...inner.warnings,
      ...outer.warnings,
    ],
  };
}

/** Measures of the outer tally speak of columns that the list itself does not have. */
function ownWords(column: FigureColumn): FigureColumn {
  const { measure, where, ...rest } = column;
  if (!measure && !where) return column;
  return { ...rest, says: column.says ?? `${column.title}, over the group results.` };
}

/** From rows of the inner result back to the records they stand on. */
function recordsBehind(
  base: Base,
  spec: NestedSpec,
  table: FigureTable,
  rows: readonly number[],
): (outer: Base, where: Where) => Where {
  const selection = selectionOf(base, spec.inner.scope);
  return (outer, where) => {
    let found = outer.all;
    if (where.condition) found = and(found, evaluate(outer.table, where.condition, found).yes);
    const chosen = where.records ?? members(found);
    const inner = Array.from(chosen, (k) => table.rows[rows[k]].where ?? {});
    const conditions = inner.flatMap((w): Condition[] =>
      w.condition && !w.records ? [w.condition] : [],
    );
    if (conditions.length === inner.length && inner.length > 0 && inner.length <= 200)
      return {
        condition:
          conditions.length === 1 ? conditions[0] : { kind: 'any', not: false, parts: conditions },
      };
    let records = emptyBitset(base.table.length);
    for (const w of inner)
      if (w.condition) records = or(records, evaluate(base.table, w.condition, selection).yes);
    const listed = inner.flatMap((w) => w.records ?? []);
    return { records: [...new Set([...members(and(records, selection)), ...listed])] };
  };
}
