import type { Names } from '../../kind/kind';
import { begun, type Part } from '../../sentence/sentence';
import { optionalParts, foldedRun } from '../../sentence/optionalParts';
import { bandsSlot, fewSlot, keySlot, measureSlots, scopeSlot } from '../../sentence/slots';
import { groupWords } from '../../sentence/words';
import type { FrequencySpec } from './spec';

/** `How often each Delay occurs in bands from 0, 5 and 10, with sum of Fares taken.` */
export function frequencySentence(spec: FrequencySpec, names: Names): Part<FrequencySpec>[] {
  const { bands } = spec.key;
  const measures = measureSlots('measures', spec.measures, names, (next) => ({
    ...spec,
    measures: next,
  }));
  const cut = bandsSlot<FrequencySpec>('key.bands', bands ?? null, spec.key.column, (next) => ({
    ...spec,
    key: { ...spec.key, bands: next ?? undefined },
  }));
  return begun<FrequencySpec>([
    `how often ${bands ? '' : 'each '}`,
    keySlot<FrequencySpec>('key', spec.key, names, (key) => (key ? { ...spec, key } : spec), {
      measures: spec.measures,
      needed: true,
      words: (key) => groupWords({ ...key, bands: undefined }, names),
    }),
    bands ? ' falls in ' : ' occurs',
    ...(bands ? [cut] : []),
    ...(spec.measures.length ? [', with '] : []),
    ...foldedRun(measures.slots),
    ...optionalParts<FrequencySpec>(
      [
        { slot: cut, usual: !bands },
        { slot: fewSlot(spec.few, (few) => ({ ...spec, few })), usual: spec.few === 10 },
        scopeSlot(spec.scope, (scope) => ({ ...spec, scope })),
      ].filter(({ slot, usual }) => slot !== cut || usual),
      [measures.add],
    ),
  ]);
}
