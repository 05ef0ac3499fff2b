import type { GroupKey } from '../../arrange/groupKey';
import type { SortKey } from '../../arrange/sortKey';
import { measureWords, ofRecords, type Measure } from '../../measure/measure';
import type { Period } from '../../table/period';
import type { LedgerSpec } from './spec';

type Names = ReadonlyMap<string, string>;

const nameOf = (names: Names, id: string | undefined): string => names.get(id ?? '') ?? id ?? '';

const PERIOD_WORDS: Record<Period, string> = {
  day: 'by day',
  week: 'by week',
  month: 'by month',
  quarter: 'by quarter',
  half: 'by half-year',
  year: 'by year',
  weekday: 'by weekday',
};

/** `Sailed on by quarter` */
export function groupWords(key: GroupKey, names: Names): string {
  const name = nameOf(names, key.column);
  return key.period ? `${name} ${PERIOD_WORDS[key.period]}` : name;
}

/** `Fares taken, highest first` */
export function sortWords(key: SortKey, names: Names): string {
  const name = nameOf(names, key.column);
  if (key.hand?.length) return `${name}, by hand`;
  return key.descending ? `${name}, highest first` : name;
}

/** `sum of Boarded` */
export function measurePhrase(measure: Measure, names: Names): string {
  const words = measureWords(measure);
  if (ofRecords(measure.kind) || measure.column === undefined) return words;
  return `${words} of ${nameOf(names, measure.column)}`;
}

/** How the groups of a level follow one another, where it is not simply by label. */
export function groupOrderWords(key: GroupKey, spec: LedgerSpec, names: Names): string {
  const { order } = key;
  switch (order.by) {
    case 'label':
      return order.descending ? 'from the last label' : '';
    case 'hand':
      return 'in an order given by hand';
    case 'count':
      return order.descending ? 'most records first' : 'fewest records first';
    case 'measure': {
      const measure = spec.measures[order.measure];
      return measure
        ? `by ${measurePhrase(measure, names)}, ${order.descending ? 'highest' : 'lowest'} first`
        : '';
    }
  }
}

const listed = (items: readonly string[]): string =>
  items.length < 2
    ? items.join('')
    : `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;

/** The ledger in one sentence or two, as its caption says it. */
export function describeLedger(spec: LedgerSpec, names: Names, listName: string): string {
  const groups = spec.groups.map((key) => {
    const order = groupOrderWords(key, spec, names);
    return groupWords(key, names) + (order ? ` (${order})` : '');
  });
  const grouped = groups.length ? `grouped by ${groups.join(', then ')}` : 'not grouped';
  const ordered = spec.sort.length
    ? `in order of ${spec.sort.map((key) => sortWords(key, names)).join(', then ')}`
    : 'in the order read';
  const measures = spec.measures.map((m) => measurePhrase(m, names));
  const under = measures.length
    ? ` ${spec.groups.length ? 'Under each group' : 'At the foot'}: ${listed(measures)}.`
    : '';
  return `${listName} ${grouped}, ${ordered}.${under}`;
}
