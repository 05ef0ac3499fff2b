import type { Names } from '../kind';
import { begun, listedParts, type Part } from '../sentence';
import { ending, foldedRun } from '../ending';
import { fewSlot, keySlots, measureSlots, scopeSlot, severalSlot, toggleSlot } from '../slots';
import { withMeasuresKept } from './edits';
import type { CrosstabSpec } from './spec';

const SHARES = [
  { value: 'row', label: 'the share of the row' },
  { value: 'column', label: 'the share of the column' },
  { value: 'total', label: 'the share of the whole' },
] as const;

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
  return begun<CrosstabSpec>([
    ...foldedRun(measures.slots),
    ' ',
    measures.add,
    ' for each ',
    ...listedParts(down.slots, ', then ', ', then '),
    ' ',
    down.add,
    ' across ',
    ...listedParts(across.slots, ', then ', ', then '),
    ...ending<CrosstabSpec>(
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
