import type { GroupKey } from '../../arrange/groupKey';
import { listedWords, type Names } from '../kind';
import { groupWords, measurePhrase, sortWords } from '../words';
import type { LedgerSpec } from './spec';

/** How the groups of a level follow one another, where it is not simply by label. */
export function groupOrderWords(
  key: GroupKey,
  spec: Pick<LedgerSpec, 'measures'>,
  names: Names,
): string {
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

/** The ledger in one sentence or two, as its caption says it. */
export function describeLedger(
  spec: Omit<LedgerSpec, 'totals'>,
  names: Names,
  listName: string,
): string {
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
    ? ` ${spec.groups.length ? 'Under each group' : 'At the foot'}: ${listedWords(measures)}.`
    : '';
  return `${listName} ${grouped}, ${ordered}.${under}`;
}
