import type { Tally } from '../tally/spec/specs';
import type { Bench, TrayItem, View } from './document';
import { openItem } from './tray';

/** Changes of the tray. Each gives a new document; none alters the one it was given. */

/** How a tally is looked at until somebody looks otherwise: every level open, its chart beside it. */
export const newView = (tally: Tally): View => ({
  showDown: tally.kind === 'ledger' ? Math.max(1, tally.groups.length) : ALL_LEVELS,
  turned: [],
  totals: 'below',
  columns: [],
  fixed: 0,
});
export const ALL_LEVELS = 13;

/** The least name that no tally of the tray has. */
function freshId(doc: Bench, kind: string): string {
  const taken = new Set(doc.tray.map((item) => item.id));
  let n = 1;
  while (taken.has(`${kind}-${n}`)) n++;
  return `${kind}-${n}`;
}

/** Puts a tally after the one that is open, and opens it. */
export function addTally(doc: Bench, tally: Tally, name?: string, note = ''): Bench {
  const id = freshId(doc, tally.kind);
  const item: TrayItem = {
    id,
    ...(name !== undefined && { name }),
    tally,
    view: newView(tally),
    note,
  };
  const at = doc.tray.indexOf(openItem(doc)) + 1;
  return { ...doc, tray: [...doc.tray.slice(0, at), item, ...doc.tray.slice(at)], open: id };
}

export const openTally = (doc: Bench, id: string): Bench =>
  doc.open === id || !doc.tray.some((item) => item.id === id) ? doc : { ...doc, open: id };

/** A second one like it, which is opened. */
export function duplicateTally(doc: Bench, id: string): Bench {
  const at = doc.tray.findIndex((item) => item.id === id);
  if (at < 0) return doc;
  const of = doc.tray[at];
  const copy: TrayItem = {
    ...of,
    id: freshId(doc, of.tally.kind),
    ...(of.name !== undefined && { name: `${of.name}, again`.slice(0, 200) }),
  };
  return {
    ...doc,
    tray: [...doc.tray.slice(0, at + 1), copy, ...doc.tray.slice(at + 1)],
    open: copy.id,
  };
}

/** Takes a tally out; its neighbour opens. The last one stays: a bench always has a tally. */
export function removeTally(doc: Bench, id: string): Bench {
  const at = doc.tray.findIndex((item) => item.id === id);
  if (at < 0 || doc.tray.length === 1) return doc;
  const tray = doc.tray.filter((item) => item.id !== id);
  const open = doc.open === id ? tray[Math.min(at, tray.length - 1)].id : doc.open;
  return { ...doc, tray, open };
}

/** Moves a tally to stand before another, or at the end. */
export function moveTally(doc: Bench, id: string, before: string | null): Bench {
  const item = doc.tray.find((i) => i.id === id);
  if (!item || id === before) return doc;
  const rest = doc.tray.filter((i) => i.id !== id);
  const at = before === null ? rest.length : rest.findIndex((i) => i.id === before);
  if (at < 0) return doc;
  return { ...doc, tray: [...rest.slice(0, at), item, ...rest.slice(at)] };
}

const withItem = (doc: Bench, id: string, change: (item: TrayItem) => TrayItem): Bench => ({
  ...doc,
  tray: doc.tray.map((item) => (item.id === id ? change(item) : item)),
});

/** @param name empty: the sentence stands in for it again */
export const renameTally = (doc: Bench, id: string, name: string): Bench =>
  withItem(doc, id, ({ name: _, ...item }) =>
    name.trim() ? { ...item, name: name.trim().slice(0, 200) } : item,
  );

/** Keeps a tally out of the report, or lets it in again. */
export const keepApart = (doc: Bench, id: string, apart: boolean): Bench =>
  withItem(doc, id, ({ apart: _, ...item }) => (apart ? { ...item, apart } : item));

/** Changes how a tally is looked at. */
export const lookAt = (doc: Bench, id: string, change: Partial<View>): Bench =>
  withItem(doc, id, (item) => ({ ...item, view: { ...item.view, ...change } }));
