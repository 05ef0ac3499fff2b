import type { ColumnType } from '../../../table/column';
import type { Names } from '../../kind/kind';
import { lifted, replacedAt, type Part, type Slot } from '../../sentence/sentence';
import { simpleSentence } from '../../sentence/simpleSentences';
import { optionalParts, type Option } from '../../sentence/optionalParts';
import { columnSlot, listSlot, newerSlot, scopeSlot, toggleSlot } from '../../sentence/slots';
import { withoutEnd } from '../../sentence/withoutEnd';
import type { ComparisonSpec } from './spec';

const ANY: readonly ColumnType[] = ['text', 'number', 'date', 'datetime', 'time', 'yesno'];

/** `What moved since the reading of 3 November, in: Sailings grouped by Route …` */
export function comparisonSentence(
  spec: ComparisonSpec,
  names: Names,
  listName: string,
): Part<ComparisonSpec>[] {
  const match = (ref: string | null, k: number): Slot<ComparisonSpec> =>
    columnSlot<ComparisonSpec>(
      `match[${k}]`,
      ref,
      names,
      ANY,
      (next) => ({ ...spec, match: replacedAt(spec.match, k, next) }),
      { empty: spec.match.length ? 'and by…' : 'records matched by…' },
    );
  const matched: Option<ComparisonSpec>[] = [
    ...spec.match.map((ref, k): Option<ComparisonSpec> => ({
      slot: match(ref, k),
      usual: false,
      before: k ? ' and ' : '; records matched by ',
    })),
    { slot: match(null, spec.match.length), usual: true },
  ];
  return [
    'What moved since ',
    listSlot<ComparisonSpec>('with', 'Against', spec.with, (next) => ({ ...spec, with: next })),
    ' up to ',
    newerSlot<ComparisonSpec>('to', spec.to, (to) => ({ ...spec, to })),
    ', in: ',
    ...withoutEnd(
      lifted(simpleSentence(spec.tally, names, listName), 'tally', (tally) => ({
        ...spec,
        tally,
      })),
      listName,
    ),
    ...optionalParts<ComparisonSpec>([
      ...matched,
      {
        slot: toggleSlot<ComparisonSpec>(
          'unmoved',
          'figures that did not move',
          spec.unmoved,
          (unmoved) => ({ ...spec, unmoved }),
        ),
        usual: !spec.unmoved,
        before: ', with ',
      },
      scopeSlot<ComparisonSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ];
}
