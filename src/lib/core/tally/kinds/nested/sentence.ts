import type { Names } from '../../kind/kind';
import { lifted, type Part, type Slot } from '../../sentence/sentence';
import { ledgerBrief } from '../ledger/sentence';
import type { SimpleTally } from '../../spec/simpleSpecs';
import { optionalParts } from '../../sentence/optionalParts';
import { scopeSlot, textSlot } from '../../sentence/slots';
import { simpleSentence } from '../../sentence/simpleSentences';
import { withoutEnd } from '../../sentence/withoutEnd';
import { measurePhrase } from '../../sentence/words';
import type { InnerTally, NestedSpec } from './spec';

const FIRST = 'First, ';

/** `First, sum of Fares taken for each …; then, of those groups: Vessel at the highest …` */
export function nestedSentence(
  spec: NestedSpec,
  names: Names,
  listName: string,
): Part<NestedSpec>[] {
  return [
    FIRST,
    ...withoutEnd(
      lifted(briefInner(spec.inner, names, listName), 'inner', (inner) => ({
        ...spec,
        inner,
      })),
      listName,
    ),
    '; then, of those results: ',
    ...withoutEnd(
      lifted(
        brief(spec.outer, namesOfResult(spec, names), 'the results'),
        'outer',
        (outer) => ({ ...spec, outer }),
        true,
      ),
      '',
    ),
    ...optionalParts<NestedSpec>([
      {
        slot: textSlot<NestedSpec>(
          'table',
          'Table of the first result',
          spec.table,
          (table) => ({ ...spec, table }),
          `from its table “${spec.table}”`,
        ),
        usual: spec.table === 'main',
      },
      scopeSlot<NestedSpec>(spec.scope, (scope) => ({ ...spec, scope })),
      { slot: again(spec), usual: true },
    ]),
  ];
}

/** A ledger within the sentence is said in brief; its order waits under `more…`. */
const brief = (tally: SimpleTally, names: Names, listName: string): Part<SimpleTally>[] =>
  tally.kind === 'ledger'
    ? lifted(ledgerBrief(tally, names, ' for each '), '', (ledger) => ledger)
    : simpleSentence(tally, names, listName);

/**
 * The inner tally. Of one that is built on results itself, what chooses among the columns of those
 * results is said as plain words: the menus of this sentence know the columns of the list and of the
 * last results.
 */
const briefInner = (tally: InnerTally, names: Names, listName: string): Part<InnerTally>[] =>
  tally.kind === 'nested'
    ? lifted(
        nestedSentence(tally, names, listName).flatMap((part): Part<NestedSpec>[] =>
          part === FIRST
            ? []
            : typeof part === 'string' || (!part.ofInner && part.takes.a !== 'act')
              ? [part]
              : part.add
                ? []
                : [part.words],
        ),
        '',
        (nested) => nested,
      )
    : lifted(brief(tally, names, listName), '', (simple) => simple);

/** The results of this tally in their turn. */
const again = (spec: NestedSpec): Slot<NestedSpec> => ({
  path: 'again',
  words: 'then again, of these results',
  takes: {
    a: 'act',
    set: () => ({
      ...spec,
      inner: { ...spec, title: undefined },
      table: 'main',
      outer: {
        kind: 'ledger',
        scope: 'counted',
        groups: [],
        sort: [],
        records: false,
        measures: [
          { kind: 'max', column: 'm1' },
          { kind: 'mean', column: 'm1' },
        ],
      },
    }),
  },
});

/** Names of the inner result's columns: its measures by their words, never by their keys. */
export function namesOfResult({ inner }: NestedSpec, names: Names): Names {
  const [asked, of] =
    inner.kind === 'nested' ? [inner.outer, namesOfResult(inner, names)] : [inner, names];
  const measures = 'measures' in asked ? asked.measures : [];
  return new Map([
    ...names,
    ['records', 'count of records'],
    ...measures.map((m, k): [string, string] => [`m${k + 1}`, measurePhrase(m, of)]),
  ]);
}
