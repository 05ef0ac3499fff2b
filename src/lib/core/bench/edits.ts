import { clashOf } from './clash';
import type { GroupKey } from '../arrange/groupKey';
import type { SortKey } from '../arrange/sortKey';
import type { Measure } from '../measure/measure';
import type { Correction } from '../read/correct';
import type { Condition, Rung, SetAside } from '../selection/condition';
import { plainFormat, type NumberFormat } from '../table/format';
import { withMeasures } from '../tally/kinds/ledger/edits';
import type { LedgerSpec } from '../tally/kinds/ledger/spec';
import type { Tally } from '../tally/spec/specs';
import type { Bench, View } from './document';
import { openItem, openLedger } from './tray';

/** Changes of a bench's document. Each gives a new document; none alters the one it was given. */

const withRungs = (doc: Bench, rungs: Rung[]): Bench => ({
  ...doc,
  ladder: { ...doc.ladder, rungs },
});

const eachRung = (doc: Bench, id: string, change: (rung: Rung) => Rung): Bench =>
  withRungs(
    doc,
    doc.ladder.rungs.map((rung) => (rung.id === id ? change(rung) : rung)),
  );

/** The least number that no rung has. */
function freshId(doc: Bench): string {
  const taken = new Set(doc.ladder.rungs.map((r) => r.id));
  let n = 1;
  while (taken.has(`r${n}`)) n++;
  return `r${n}`;
}

export const addRung = (doc: Bench, condition: Condition): Bench =>
  withRungs(doc, [...doc.ladder.rungs, { id: freshId(doc), on: true, condition }]);

/**
 * The same with steps for these conditions; one that is there already, and on, is not made again, and one that would
 * leave no record beside another takes its place.
 */
export const narrowTo = (doc: Bench, conditions: readonly Condition[]): Bench =>
  conditions.reduce<Bench>((to, condition) => {
    const said = JSON.stringify(condition);
    const isThere = to.ladder.rungs.some(
      (rung) => rung.on && JSON.stringify(rung.condition) === said,
    );
    return isThere ? to : addRungInstead(to, condition);
  }, doc);

/** The same with a step for a condition, in place of one that it clashes with. */
export function addRungInstead(doc: Bench, condition: Condition): Bench {
  const clash = clashOf(doc.ladder.rungs, condition);
  return addRung(clash ? removeRung(doc, clash.id) : doc, condition);
}

export const changeRung = (doc: Bench, id: string, condition: Condition): Bench =>
  eachRung(doc, id, (rung) => ({ ...rung, condition }));

export const switchRung = (doc: Bench, id: string): Bench =>
  eachRung(doc, id, (rung) => ({ ...rung, on: !rung.on }));

export const negateRung = (doc: Bench, id: string): Bench =>
  eachRung(doc, id, (rung) => ({
    ...rung,
    condition: { ...rung.condition, not: !rung.condition.not },
  }));

export const removeRung = (doc: Bench, id: string): Bench =>
  withRungs(
    doc,
    doc.ladder.rungs.filter((rung) => rung.id !== id),
  );

/** Moves a rung up (−1) or down (1); at the edge nothing changes. */
export function moveRung(doc: Bench, id: string, by: -1 | 1): Bench {
  const rungs = [...doc.ladder.rungs];
  const from = rungs.findIndex((r) => r.id === id);
  const to = from + by;
  if (from < 0 || to < 0 || to >= rungs.length) return doc;
  [rungs[from], rungs[to]] = [rungs[to], rungs[from]];
  return withRungs(doc, rungs);
}

const withAside = (doc: Bench, setAside: SetAside): Bench => ({
  ...doc,
  ladder: { ...doc.ladder, setAside },
});

export function setAsideRecords(doc: Bench, records: readonly number[]): Bench {
  const { setAside } = doc.ladder;
  const chosen = new Set(records);
  return withAside(doc, {
    ...setAside,
    records: [...new Set([...setAside.records, ...records])].sort((a, b) => a - b),
    kept: setAside.kept.filter((i) => !chosen.has(i)),
  });
}

/** Puts records back, also where they were set aside by a value. */
export function putBack(doc: Bench, records: readonly number[]): Bench {
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

export function setAsideValue(doc: Bench, column: string, value: string | null): Bench {
  const { setAside } = doc.ladder;
  if (setAside.values.some((v) => v.column === column && v.value === value)) return doc;
  return withAside(doc, { ...setAside, values: [...setAside.values, { column, value }] });
}

/** Puts back what was set aside by its value; a record set aside by itself stays so. */
export function putBackValue(doc: Bench, column: string, value: string | null): Bench {
  const { setAside } = doc.ladder;
  const values = setAside.values.filter((v) => v.column !== column || v.value !== value);
  return withAside(doc, { ...setAside, values, kept: values.length ? setAside.kept : [] });
}

export const putAllBack = (doc: Bench): Bench =>
  withAside(doc, { records: [], values: [], kept: [] });

/** Changes how the open tally is looked at. */
const withView = (doc: Bench, change: Partial<View>): Bench => {
  const { id } = openItem(doc);
  return {
    ...doc,
    tray: doc.tray.map((item) =>
      item.id === id ? { ...item, view: { ...item.view, ...change } } : item,
    ),
  };
};

/** Puts another spec in the place of a tally of the tray; orders given by hand stay with their columns. */
export function setTally(doc: Bench, id: string, tally: Tally): Bench {
  if (tally.kind === 'ledger') return setLedger(doc, id, tally);
  return { ...doc, tray: doc.tray.map((item) => (item.id === id ? { ...item, tally } : item)) };
}

/** Another ledger. What was shown down to the records stays so, whatever the number of levels. */
function setLedger(doc: Bench, id: string, tally: LedgerSpec): Bench {
  const item = doc.tray.find((i) => i.id === id);
  if (!item || item.tally.kind !== 'ledger') return doc;
  const { groups, sort } = item.tally;
  const regrouped =
    JSON.stringify(tally.groups.map(levelOf)) !== JSON.stringify(groups.map(levelOf));
  const records = item.view.showDown > groups.length && groups.length > 0;
  const showDown = records ? tally.groups.length + 1 : Math.max(1, tally.groups.length);
  const view = regrouped ? { ...item.view, showDown, turned: [] } : item.view;
  const given = [
    ...tally.groups.flatMap(({ column, order }): [string, string[]][] =>
      order.by === 'hand' && !groups.some((g) => g.order === order) ? [[column, order.labels]] : [],
    ),
    ...tally.sort.flatMap((key): [string, string[]][] =>
      key.hand && !sort.includes(key) ? [[key.column, key.hand]] : [],
    ),
  ];
  return remember(
    { ...doc, tray: doc.tray.map((i) => (i.id === id ? { ...i, tally, view } : i)) },
    given,
  );
}

/** What makes the groups of a level, apart from their order. */
const levelOf = ({ order: _, ...rest }: GroupKey): object => rest;

/** Changes the spec of the open ledger; without one nothing changes. */
const withLedger = (doc: Bench, change: (spec: LedgerSpec) => LedgerSpec): Bench => {
  const item = openLedger(doc);
  return item ? setTally(doc, item.id, change(item.tally)) : doc;
};

export const setGroups = (doc: Bench, groups: GroupKey[]): Bench =>
  withLedger(doc, (spec) => ({ ...spec, groups }));

export const setSort = (doc: Bench, sort: SortKey[]): Bench =>
  withLedger(doc, (spec) => ({ ...spec, sort }));

/** Orders given by hand stay with their columns. */
const remember = (doc: Bench, given: readonly [string, string[]][]): Bench =>
  given.length ? { ...doc, orders: { ...doc.orders, ...Object.fromEntries(given) } } : doc;

/** New measures; groups ordered by a measure follow it, or fall back to labels. */
export const setMeasures = (doc: Bench, measures: Measure[]): Bench =>
  withLedger(doc, (spec) => withMeasures(spec, measures));

export const setTotals = (doc: Bench, totals: 'above' | 'below'): Bench =>
  withView(doc, { totals });

/** Shows down to a level; groups turned one by one follow it again. */
export const setShowDown = (doc: Bench, showDown: number): Bench =>
  withView(doc, { showDown, turned: [] });

/** Folds an open group or unfolds a folded one. */
export function turnGroup(doc: Bench, key: string): Bench {
  const { turned } = openItem(doc).view;
  return withView(doc, {
    turned: turned.includes(key) ? turned.filter((k) => k !== key) : [...turned, key],
  });
}

type ColumnView = View['columns'][number];

/** Changes how a column is looked at, the order of all columns written out. */
export function changeColumn(
  doc: Bench,
  order: readonly string[],
  id: string,
  change: Partial<ColumnView>,
): Bench {
  const { view } = openItem(doc);
  const known = new Map(view.columns.map((c) => [c.column, c]));
  const columns = order.map((column): ColumnView => ({
    ...(known.get(column) ?? { column }),
    ...(column === id ? change : {}),
  }));
  return withView(doc, { columns });
}

/** Moves a column to stand before another, or at the end. */
export function moveColumn(
  doc: Bench,
  order: readonly string[],
  id: string,
  before: string | null,
): Bench {
  if (id === before) return doc;
  const rest = order.filter((c) => c !== id);
  const at = before === null ? rest.length : rest.indexOf(before);
  const next = [...rest.slice(0, at), id, ...rest.slice(at)];
  return changeColumn(doc, next, id, {});
}

export const setFixed = (doc: Bench, fixed: number): Bench => withView(doc, { fixed });
/** @param width null: what its labels need */
export const setGroupWidth = (doc: Bench, width: number | null): Bench =>
  withView(doc, { groupWidth: width ?? undefined });

export const setLead = (doc: Bench, lead: string | null): Bench => ({
  ...doc,
  lead,
});

/** A format for a column, or for one measure's figures; null goes back to the usual one. */
export function setFormat(doc: Bench, key: string, format: NumberFormat | null): Bench {
  const formats = { ...doc.formats };
  if (format) formats[key] = format;
  else delete formats[key];
  return { ...doc, formats };
}

/** Means of a column with ± their deviation, rounded to two digits of it as a laboratory writes them. */
export const showDeviation = (doc: Bench, column: string): Bench =>
  setFormat(doc, column, { ...(doc.formats[column] ?? plainFormat), deviation: 2 });

/** Puts cells right; a second correction of the same cell takes the place of the first. */
export function correctCells(doc: Bench, corrections: readonly Correction[]): Bench {
  const placeOf = ({ record, column }: Correction): string => `${record} ${column}`;
  const now = new Set(corrections.map(placeOf));
  const others = doc.corrections.filter((c) => !now.has(placeOf(c)));
  return { ...doc, corrections: [...others, ...corrections] };
}

export const takeBackCorrection = (doc: Bench, record: number, column: string): Bench => ({
  ...doc,
  corrections: doc.corrections.filter((c) => c.record !== record || c.column !== column),
});

/** Keeps the rungs under a name; the same name takes the place of the old. */
export const keepScope = (doc: Bench, name: string): Bench => ({
  ...doc,
  scopes: [...doc.scopes.filter((s) => s.name !== name), { name, rungs: doc.ladder.rungs }],
});

export const bringScope = (doc: Bench, name: string): Bench =>
  withRungs(doc, doc.scopes.find((s) => s.name === name)?.rungs ?? doc.ladder.rungs);

export const dropScope = (doc: Bench, name: string): Bench => ({
  ...doc,
  scopes: doc.scopes.filter((s) => s.name !== name),
});

export const setCorrections = (doc: Bench, corrections: Correction[]): Bench => ({
  ...doc,
  corrections,
});

export const setSetAside = (doc: Bench, setAside: SetAside): Bench => withAside(doc, setAside);
