import {
  MEASURE_KINDS,
  MEASURES,
  byQuantiles,
  needsOther,
  ofRecords,
} from '../../../measure/measure';
import type { ColumnType } from '../../../table/column';
import type { Names } from '../../kind/kind';
import { begun, listedParts, replacedAt, type Part } from '../../sentence/sentence';
import { optionalParts } from '../../sentence/optionalParts';
import {
  columnSlot,
  fewSlot,
  keySlot,
  numberSlot,
  scopeSlot,
  severalSlot,
} from '../../sentence/slots';
import type { SpreadSpec } from './spec';

type Fact = SpreadSpec['facts'][number];

const TYPES: readonly ColumnType[] = ['number', 'date', 'datetime', 'time', 'yesno'];

/** Facts of one column: measures that need no other and compare with no group. */
const FACTS = MEASURE_KINDS.filter(
  (kind) => needsOther(kind) === null && !ofRecords(kind) && !/^share|^running$/.test(kind),
).map((value) => ({ value, label: MEASURES[value].words }));

/** `How far Delay spreads for each Route, by 12 facts.` */
export function spreadSentence(spec: SpreadSpec, names: Names): Part<SpreadSpec>[] {
  const column = (ref: string | null, k: number): Part<SpreadSpec> =>
    columnSlot<SpreadSpec>(
      `columns[${k}]`,
      ref,
      names,
      TYPES,
      (next) => ({ ...spec, columns: replacedAt(spec.columns, k, next) }),
      { needed: spec.columns.length === 1 },
    );
  const key = keySlot<SpreadSpec>(
    'key',
    spec.key ?? null,
    names,
    (next) => {
      const { key: _, ...rest } = spec;
      return next ? { ...rest, key: next } : rest;
    },
    { taken: spec.columns },
  );
  const changed = (k: number, fact: Fact): SpreadSpec => ({
    ...spec,
    facts: replacedAt(spec.facts, k, fact),
  });
  const details = spec.facts.flatMap((fact, k) => [
    ...(fact.kind === 'percentile' || fact.kind === 'trimmedMean'
      ? [
          {
            slot: numberSlot<SpreadSpec>(
              `facts[${k}].percent`,
              fact.kind === 'percentile'
                ? `percentile at ${fact.percent ?? 50} %`
                : `mean without the outer ${fact.percent ?? 5} %`,
              fact.percent ?? (fact.kind === 'percentile' ? 50 : 5),
              { least: 0, most: fact.kind === 'percentile' ? 100 : 50, needed: true },
              (percent) => changed(k, { ...fact, ...(percent !== null && { percent }) }),
            ),
            usual: true,
          },
        ]
      : []),
    ...(byQuantiles(fact.kind)
      ? [
          {
            slot: numberSlot<SpreadSpec>(
              `facts[${k}].definition`,
              `${MEASURES[fact.kind].words} by definition ${fact.definition ?? 7}`,
              fact.definition ?? 7,
              { least: 1, most: 9, whole: true, needed: true },
              (definition) => changed(k, { ...fact, ...(definition !== null && { definition }) }),
            ),
            usual: fact.definition === undefined || fact.definition === 7,
          },
        ]
      : []),
  ]);
  return begun<SpreadSpec>([
    'how far ',
    ...listedParts(spec.columns.map(column)),
    ' ',
    column(null, spec.columns.length),
    spec.columns.length === 1 ? ' spreads ' : ' spread ',
    ...(spec.key ? ['for each ', key] : [key]),
    ', by ',
    severalSlot<SpreadSpec, Fact['kind']>(
      'facts',
      'Facts',
      spec.facts.map((f) => f.kind),
      FACTS,
      (kinds) => ({
        ...spec,
        facts: kinds.map((kind) => spec.facts.find((f) => f.kind === kind) ?? newFact(kind)),
      }),
      {
        least: 1,
        words: spec.facts.length > 3 ? `${spec.facts.length} facts` : undefined,
      },
    ),
    ...optionalParts<SpreadSpec>([
      ...details,
      { slot: fewSlot<SpreadSpec>(spec.few, (few) => ({ ...spec, few })), usual: spec.few === 10 },
      scopeSlot<SpreadSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

const newFact = (kind: Fact['kind']): Fact => ({
  kind,
  ...(kind === 'percentile' && { percent: 90 }),
  ...(kind === 'trimmedMean' && { percent: 5 }),
});
