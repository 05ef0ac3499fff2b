import type { GroupKey } from '../../../arrange/groupKey';
import type { Names } from '../../kind/kind';
import { listedParts, replacedAt, type Part, type Slot } from '../../sentence/sentence';
import { foldedRun, moreSlot } from '../../sentence/optionalParts';
import { measureSlots, scopeSlot, toggleSlot, withMoves } from '../../sentence/slots';
import { groupWords, measurePhrase, orderWords, scopeWords, sortWords } from '../../sentence/words';
import { withMeasures } from './edits';
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

/**
 * A ledger within another tally's sentence: `sum of Fares taken for each Route, then Vessel`. Its
 * order waits under `more…`.
 */
export function ledgerBrief(spec: LedgerSpec, names: Names, before: string): Part<LedgerSpec>[] {
  const parts = ledgerParts(spec, names);
  return [
    ...foldedRun(parts.measures.slots),
    ' ',
    parts.measures.add,
    ...(spec.groups.length ? [before] : [' ']),
    ...listedParts(parts.groups, ', then ', ', then '),
    ' ',
    parts.addGroup,
    '. ',
    moreSlot<LedgerSpec>([...parts.sort, parts.addSort, ...parts.options]),
  ];
}

/** The ledger in one sentence or two. */
export function ledgerSentence(
  spec: LedgerSpec,
  names: Names,
  listName: string,
): Part<LedgerSpec>[] {
  const parts = ledgerParts(spec, names);
  const { measures } = parts;
  const grouped = spec.groups.length > 0;
  return [
    `${listName}${scopeWords(spec.scope)} ${grouped ? 'grouped by ' : 'not grouped '}`,
    ...listedParts(parts.groups, ', then ', ', then '),
    ' ',
    parts.addGroup,
    spec.sort.length ? ', in order of ' : `, ${orderWords(spec.sort, names)} `,
    ...listedParts(parts.sort, ', then ', ', then '),
    ' ',
    parts.addSort,
    '. ',
    ...(spec.measures.length ? [grouped ? 'Under each group: ' : 'At the foot: '] : []),
    ...foldedRun(measures.slots),
    spec.measures.length ? '. ' : ' ',
    measures.add,
    ' ',
    moreSlot<LedgerSpec>(parts.options),
  ];
}

interface LedgerParts {
  readonly groups: Slot<LedgerSpec>[];
  readonly addGroup: Slot<LedgerSpec>;
  readonly sort: Slot<LedgerSpec>[];
  readonly addSort: Slot<LedgerSpec>;
  readonly measures: { slots: Slot<LedgerSpec>[]; add: Slot<LedgerSpec> };
  readonly options: Slot<LedgerSpec>[];
}

function ledgerParts(spec: LedgerSpec, names: Names): LedgerParts {
  const group = (key: GroupKey | null, k: number): Slot<LedgerSpec> => {
    const order = key ? groupOrderWords(key, spec, names) : '';
    const adding = spec.groups.length ? 'then…' : 'group by…';
    return {
      path: `groups[${k}]`,
      words: key ? groupWords(key, names) + (order ? ` (${order})` : '') : adding,
      ...(key === null && { add: true }),
      takes: {
        a: 'key',
        value: key,
        level: k,
        taken: spec.groups.map((g) => g.column),
        measures: spec.measures,
        set: (next) => ({ ...spec, groups: replacedAt(spec.groups, k, next) }),
      },
    };
  };
  const sort = (k: number): Slot<LedgerSpec> => {
    const key = spec.sort[k] ?? null;
    return {
      path: `sort[${k}]`,
      words: key ? sortWords(key, names) : spec.sort.length ? 'then…' : 'sort by…',
      ...(key === null && { add: true }),
      takes: {
        a: 'sort',
        value: key,
        set: (next) => ({ ...spec, sort: replacedAt(spec.sort, k, next) }),
      },
    };
  };
  const measures = measureSlots<LedgerSpec>('measures', spec.measures, names, (next) =>
    withMeasures(spec, next),
  );
  return {
    groups: withMoves(
      spec.groups.map(group),
      'groups',
      spec.groups,
      (key) => groupWords(key, names),
      (groups) => ({ ...spec, groups }),
    ),
    addGroup: group(null, spec.groups.length),
    sort: withMoves(
      spec.sort.map((_, at) => sort(at)),
      'sort',
      spec.sort,
      (key) => sortWords(key, names),
      (sorted) => ({ ...spec, sort: sorted }),
    ),
    addSort: sort(spec.sort.length),
    measures,
    options: [
      scopeSlot<LedgerSpec>(spec.scope, (scope) => ({ ...spec, scope })).slot,
      toggleSlot<LedgerSpec>(
        'records',
        'the records themselves in reports and files',
        spec.records,
        (records) => ({ ...spec, records }),
      ),
    ],
  };
}
