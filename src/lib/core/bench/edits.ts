import type { GroupKey } from '../arrange/groupKey';
import type { SortKey } from '../arrange/sortKey';
import type { Measure } from '../measure/measure';
import type { Correction } from '../read/correct';
import type { Condition, Rung, SetAside } from '../scope/condition';
import type { NumberFormat } from '../table/format';
import type { LedgerSpec } from '../tally/ledger/spec';
import { openTally, type BenchDocument, type LedgerView } from './document';

/** Changes of a bench's document. Each gives a new document; none alters the one it was given. */

const withRungs = (doc: BenchDocument, rungs: Rung[]): BenchDocument => ({
  ...doc,
  ladder: { ...doc.ladder, rungs },
});

const eachRung = (doc: BenchDocument, id: string, change: (rung: Rung) => Rung): BenchDocument =>
  withRungs(
    doc,
    doc.ladder.rungs.map((rung) => (rung.id === id ? change(rung) : rung)),
  );

/** The least number that no rung has. */
function freshId(doc: BenchDocument): string {
  const taken = new Set(doc.ladder.rungs.map((r) => r.id));
  let n = 1;
  while (taken.has(`r${n}`)) n++;
  return `r${n}`;
}

export const addRung = (doc: BenchDocument, condition: Condition): BenchDocument =>
  withRungs(doc, [...doc.ladder.rungs, { id: freshId(doc), on: true, condition }]);

export const changeRung = (doc: BenchDocument, id: string, condition: Condition): BenchDocument =>
  eachRung(doc, id, (rung) => ({ ...rung, condition }));

export const switchRung = (doc: BenchDocument, id: string): BenchDocument =>
  eachRung(doc, id, (rung) => ({ ...rung, on: !rung.on }));

export const negateRung = (doc: BenchDocument, id: string): BenchDocument =>
  eachRung(doc, id, (rung) => ({
    ...rung,
    condition: { ...rung.condition, not: !rung.condition.not },
  }));

export const removeRung = (doc: BenchDocument, id: string): BenchDocument =>
  withRungs(
    doc,
    doc.ladder.rungs.filter((rung) => rung.id !== id),
  );

/** Moves a rung up (−1) or down (1); at the edge nothing changes. */
export function moveRung(doc: BenchDocument, id: string, by: -1 | 1): BenchDocument {
  const rungs = [...doc.ladder.rungs];
  const from = rungs.findIndex((r) => r.id === id);
  const to = from + by;
  if (from < 0 || to < 0 || to >= rungs.length) return doc;
  [rungs[from], rungs[to]] = [rungs[to], rungs[from]];
  return withRungs(doc, rungs);
}

const withAside = (doc: BenchDocument, setAside: SetAside): BenchDocument => ({
  ...doc,
  ladder: { ...doc.ladder, setAside },
});

export function setAsideRecords(doc: BenchDocument, records: readonly number[]): BenchDocument {
  const { setAside } = doc.ladder;
  const chosen = new Set(records);
  return withAside(doc, {
    ...setAside,
    records: [...new Set([...setAside.records, ...records])].sort((a, b) => a - b),
    kept: setAside.kept.filter((i) => !chosen.has(i)),
  });
}

/** Puts records back, also where they were set aside by a value. */
export function putBack(doc: BenchDocument, records: readonly number[]): BenchDocument {
  const { setAside } = doc.ladder;
  const chosen = new Set(records);
  return withAside(doc, {
    ...setAside,
    records: setAside.records.filter((i) => !chosen.has(i)),
    kept: setAside.values.length
      ? [...new Set([...setAside.kept, ...records])].sort((a, b) => a - b)
      : [],
  });
}

export function setAsideValue(
  doc: BenchDocument,
  column: string,
  value: string | null,
): BenchDocument {
  const { setAside } = doc.ladder;
  if (setAside.values.some((v) => v.column === column && v.value === value)) return doc;
  return withAside(doc, { ...setAside, values: [...setAside.values, { column, value }] });
}

export const putAllBack = (doc: BenchDocument): BenchDocument =>
  withAside(doc, { records: [], values: [], kept: [] });

const withTally = (
  doc: BenchDocument,
  change: { spec?: Partial<LedgerSpec>; view?: Partial<LedgerView> },
): BenchDocument => {
  const open = openTally(doc);
  return {
    ...doc,
    tallies: doc.tallies.map((t) =>
      t.id === open.id
        ? { ...t, spec: { ...t.spec, ...change.spec }, view: { ...t.view, ...change.view } }
        : t,
    ),
  };
};

/** New group keys. What was shown down to the records stays so, whatever the number of levels. */
export function setGroups(doc: BenchDocument, groups: GroupKey[]): BenchDocument {
  const { spec, view } = openTally(doc);
  const records = view.showDown > spec.groups.length && spec.groups.length > 0;
  const showDown = records ? groups.length + 1 : Math.max(1, groups.length);
  const given = groups.flatMap(({ column, order }): [string, string[]][] =>
    order.by === 'hand' ? [[column, order.labels]] : [],
  );
  return remember(withTally(doc, { spec: { groups }, view: { showDown, turned: [] } }), given);
}

export function setSort(doc: BenchDocument, sort: SortKey[]): BenchDocument {
  const given = sort.flatMap(({ column, hand }): [string, string[]][] =>
    hand ? [[column, hand]] : [],
  );
  return remember(withTally(doc, { spec: { sort } }), given);
}

/** Orders given by hand stay with their columns. */
const remember = (doc: BenchDocument, given: readonly [string, string[]][]): BenchDocument =>
  given.length ? { ...doc, orders: { ...doc.orders, ...Object.fromEntries(given) } } : doc;

/** New measures; groups ordered by a measure follow it to its new place, or fall back to labels. */
export function setMeasures(doc: BenchDocument, measures: Measure[]): BenchDocument {
  const { spec } = openTally(doc);
  const groups = spec.groups.map((key): GroupKey => {
    if (key.order.by !== 'measure') return key;
    const old = spec.measures[key.order.measure];
    const at = measures.findIndex((m) => m === old || JSON.stringify(m) === JSON.stringify(old));
    return {
      ...key,
      order: at >= 0 ? { ...key.order, measure: at } : { by: 'label', descending: false },
    };
  });
  return withTally(doc, { spec: { measures, groups } });
}

export const setTotals = (doc: BenchDocument, totals: 'above' | 'below'): BenchDocument =>
  withTally(doc, { spec: { totals } });

/** Shows down to a level; groups turned one by one follow it again. */
export const setShowDown = (doc: BenchDocument, showDown: number): BenchDocument =>
  withTally(doc, { view: { showDown, turned: [] } });

/** Folds an open group or unfolds a folded one. */
export function turnGroup(doc: BenchDocument, key: string): BenchDocument {
  const { turned } = openTally(doc).view;
  return withTally(doc, {
    view: { turned: turned.includes(key) ? turned.filter((k) => k !== key) : [...turned, key] },
  });
}

type ColumnView = LedgerView['columns'][number];

/** Changes how a column is looked at, the order of all columns written out. */
export function changeColumn(
  doc: BenchDocument,
  order: readonly string[],
  id: string,
  change: Partial<ColumnView>,
): BenchDocument {
  const { view } = openTally(doc);
  const known = new Map(view.columns.map((c) => [c.column, c]));
  const columns = order.map((column): ColumnView => ({
    ...(known.get(column) ?? { column }),
    ...(column === id ? change : {}),
  }));
  return withTally(doc, { view: { columns } });
}

/** Moves a column to stand before another, or at the end. */
export function moveColumn(
  doc: BenchDocument,
  order: readonly string[],
  id: string,
  before: string | null,
): BenchDocument {
  if (id === before) return doc;
  const rest = order.filter((c) => c !== id);
  const at = before === null ? rest.length : rest.indexOf(before);
  const next = [...rest.slice(0, at), id, ...rest.slice(at)];
  return changeColumn(doc, next, id, {});
}

export const setFixed = (doc: BenchDocument, fixed: number): BenchDocument =>
  withTally(doc, { view: { fixed } });
/** @param width null: what its labels need */
export const setGroupWidth = (doc: BenchDocument, width: number | null): BenchDocument =>
  withTally(doc, { view: { groupWidth: width ?? undefined } });

export const setLead = (doc: BenchDocument, lead: string | null): BenchDocument => ({
  ...doc,
  lead,
});

/** A format for a column, or for one measure's figures; null goes back to the usual one. */
export function setFormat(
  doc: BenchDocument,
  key: string,
  format: NumberFormat | null,
): BenchDocument {
  const formats = { ...doc.formats };
  if (format) formats[key] = format;
  else delete formats[key];
  return { ...doc, formats };
}

/** Puts a cell right; a second correction of the same cell takes the place of the first. */
export function correctCell(doc: BenchDocument, correction: Correction): BenchDocument {
  const others = doc.corrections.filter(
    (c) => c.record !== correction.record || c.column !== correction.column,
  );
  return { ...doc, corrections: [...others, correction] };
}

export const takeBackCorrection = (
  doc: BenchDocument,
  record: number,
  column: string,
): BenchDocument => ({
  ...doc,
  corrections: doc.corrections.filter((c) => c.record !== record || c.column !== column),
});

/** Keeps the rungs under a name; the same name takes the place of the old. */
export const keepScope = (doc: BenchDocument, name: string): BenchDocument => ({
  ...doc,
  scopes: [...doc.scopes.filter((s) => s.name !== name), { name, rungs: doc.ladder.rungs }],
});

export const bringScope = (doc: BenchDocument, name: string): BenchDocument =>
  withRungs(doc, doc.scopes.find((s) => s.name === name)?.rungs ?? doc.ladder.rungs);

export const dropScope = (doc: BenchDocument, name: string): BenchDocument => ({
  ...doc,
  scopes: doc.scopes.filter((s) => s.name !== name),
});
