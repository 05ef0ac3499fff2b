import type { Names } from '../kind';
import { lifted, type Part } from '../sentence';
import { ledgerBrief } from '../ledger/sentence';
import type { SimpleTally } from '../simpleSpecs';
import { ending } from '../ending';
import { scopeSlot, textSlot } from '../slots';
import { simpleSentence } from '../simpleSentences';
import { withoutEnd } from '../withoutEnd';
import { measurePhrase } from '../words';
import type { NestedSpec } from './spec';

/** `First, sum of Fares taken for each …; then, of those groups: Vessel at the highest …` */
export function nestedSentence(
  spec: NestedSpec,
  names: Names,
  listName: string,
): Part<NestedSpec>[] {
  return [
    'First, ',
    ...withoutEnd(
      lifted(brief(spec.inner, names, listName), 'inner', (inner) => ({
        ...spec,
        inner,
      })),
    ),
    '; then, of those results: ',
    ...withoutEnd(
      lifted(
        brief(spec.outer, namesOfResult(spec, names), 'the results'),
        'outer',
        (outer) => ({ ...spec, outer }),
        true,
      ),
    ),
    ...ending<NestedSpec>([
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
    ]),
  ];
}

/** A ledger within the sentence is said in brief; its order waits under `more…`. */
const brief = (tally: SimpleTally, names: Names, listName: string): Part<SimpleTally>[] =>
  tally.kind === 'ledger'
    ? lifted(ledgerBrief(tally, names, ' for each '), '', (ledger) => ledger)
    : simpleSentence(tally, names, listName);

/** Names of the inner result's columns: its measures by their words, never by their keys. */
export function namesOfResult({ inner }: NestedSpec, names: Names): Names {
  const measures = 'measures' in inner ? inner.measures : [];
  return new Map([
    ...names,
    ['records', 'count of records'],
    ...measures.map((m, k): [string, string] => [`m${k + 1}`, measurePhrase(m, names)]),
  ]);
}
