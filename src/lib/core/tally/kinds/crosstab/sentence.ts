import type { Names } from '../../kind/kind';
import type { GroupKey } from '../../../arrange/groupKey';
import {
  begun,
  listedParts,
  replacedAt,
  type Move,
  type Part,
  type Slot,
} from '../../sentence/sentence';
import { groupWords } from '../../sentence/words';
import { optionalParts, foldedRun } from '../../sentence/optionalParts';
import {
  fewSlot,
  keySlots,
  measureSlots,
  scopeSlot,
  severalSlot,
  toggleSlot,
} from '../../sentence/slots';
import { withMeasuresKept } from './edits';
import type { CrosstabSpec } from './spec';

const SHARES = [
  { value: 'row', label: 'the share of the row' },
  { value: 'column', label: 'the share of the column' },
  { value: 'total', label: 'the share of the whole' },
] as const;

type Side = 'down' | 'across';
const MOST_KEYS: Readonly<Record<Side, number>> = { down: 6, across: 4 };

/**
 * The keys of one side, each with the places of the other that it can be moved to: before a key there or
 * behind the last. Where a side would be left without any, the two are exchanged.
 */
function crossing(
  slots: readonly Slot<CrosstabSpec>[],
  spec: CrosstabSpec,
  names: Names,
  from: Side,
  to: Side,
): Slot<CrosstabSpec>[] {
  const [own, other] = [spec[from], spec[to]];
  const into = (next: readonly GroupKey[], left: readonly GroupKey[]): CrosstabSpec => ({
    ...spec,
    [to]: next,
    [from]: left,
  });
  return slots.map((slot, k) => {
    const rest = own.filter((_, at) => at !== k);
    const onto = other.map((key, at): Move<CrosstabSpec> => {
      const exchanged = rest.length === 0 || other.length === MOST_KEYS[to];
      const left = own.map((mine, place) => (place === k ? key : mine));
      return {
        onto: `${to}[${at}]`,
        words: `${exchanged ? 'Exchange with' : `Move ${to}, before`} ${groupWords(key, names)}`,
        set: () =>
          exchanged
            ? into(replacedAt(other, at, own[k]), left)
            : into([...other.slice(0, at), own[k], ...other.slice(at)], rest),
      };
    });
    const behind: Move<CrosstabSpec>[] =
      rest.length === 0 || other.length === MOST_KEYS[to]
        ? []
        : [
            {
              onto: `${to}[${other.length}]`,
              words: `Move ${to}, behind all`,
              set: () => into([...other, own[k]], rest),
            },
          ];
    return { ...slot, moves: [...(slot.moves ?? []), ...onto, ...behind] };
  });
}

/** `Mean of Delay for each Route across Sailed on by year, with the count beside it.` */
export function crosstabSentence(spec: CrosstabSpec, names: Names): Part<CrosstabSpec>[] {
  const taken = [...spec.down, ...spec.across].map((key) => key.column);
  const about = { taken, measures: spec.measures, least: 1 };
  const measures = measureSlots(
    'measures',
    spec.measures,
    names,
    (next) => withMeasuresKept(spec, next),
    1,
  );
  const down = keySlots('down', spec.down, names, (next) => ({ ...spec, down: next }), {
    ...about,
    empty: 'then…',
  });
  const across = keySlots('across', spec.across, names, (next) => ({ ...spec, across: next }), {
    ...about,
    empty: 'and across…',
  });
  const [downs, acrosses] = [
    crossing(down.slots, spec, names, 'down', 'across'),
    crossing(across.slots, spec, names, 'across', 'down'),
  ];
  return begun<CrosstabSpec>([
    ...foldedRun(measures.slots),
    ' ',
    measures.add,
    ' for each ',
    ...listedParts(downs, ', then ', ', then '),
    ' ',
    down.add,
    ' across ',
    ...listedParts(acrosses, ', then ', ', then '),
    ...optionalParts<CrosstabSpec>(
      [
        {
          slot: severalSlot(
            'shares',
            'Shares beside it',
            spec.shares,
            SHARES,
            (shares) => ({
              ...spec,
              shares,
            }),
            { words: spec.shares.length ? undefined : 'shares of the row, column or whole' },
          ),
          usual: spec.shares.length === 0,
          before: ', with ',
        },
        {
          slot: toggleSlot('count', 'the count beside each figure', spec.count, (count) => ({
            ...spec,
            count,
          })),
          usual: !spec.count,
          before: ', with ',
        },
        {
          slot: {
            path: 'turned',
            words: 'turn down and across round',
            takes: {
              a: 'act',
              set: () => ({ ...spec, down: spec.across, across: spec.down.slice(0, 4) }),
            },
          },
          usual: true,
        },
        { slot: fewSlot(spec.few, (few) => ({ ...spec, few })), usual: spec.few === 10 },
        scopeSlot(spec.scope, (scope) => ({ ...spec, scope })),
      ],
      [across.add],
    ),
  ]);
}
