import type { KnownTotal } from '../check/known';
import type { Bench, ReportSettings, TrayItem } from './document';

/** Changes of the report and of known totals. Each gives a new document; none alters the one it was given. */

export const setReport = (doc: Bench, change: Partial<ReportSettings>): Bench => ({
  ...doc,
  report: { ...doc.report, ...change },
});

/** Changes what the report shows of a tally, or its note. */
export const inReport = (
  doc: Bench,
  id: string,
  change: Partial<Pick<TrayItem, 'note' | 'shows' | 'newPage'>>,
): Bench => ({
  ...doc,
  tray: doc.tray.map((item) => (item.id === id ? { ...item, ...change } : item)),
});

/** Puts a known total on a figure, in the place of what was known of it before. */
export function setKnown(doc: Bench, known: Omit<KnownTotal, 'id'>): Bench {
  const same = (k: KnownTotal): boolean =>
    k.tally === known.tally &&
    k.scope === known.scope &&
    JSON.stringify(k.place) === JSON.stringify(known.place);
  const before = doc.known.find(same);
  const taken = new Set(doc.known.map((k) => k.id));
  let n = 1;
  while (taken.has(`k${n}`)) n++;
  const next = { ...known, id: before?.id ?? `k${n}` };
  return {
    ...doc,
    known: before ? doc.known.map((k) => (k === before ? next : k)) : [...doc.known, next],
  };
}

export const noteKnown = (doc: Bench, id: string, note: string): Bench => ({
  ...doc,
  known: doc.known.map((known) => (known.id === id ? { ...known, note } : known)),
});

export const removeKnown = (doc: Bench, id: string): Bench => ({
  ...doc,
  known: doc.known.filter((k) => k.id !== id),
});
