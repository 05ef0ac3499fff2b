import type { Condition } from '../../../selection/condition';
import { describeCondition } from '../../../selection/describe';
import type { Names } from '../../kind/kind';
import { begun, listedParts, replacedAt, type Part } from '../../sentence/sentence';
import { columnsOf, productOf, type Product } from './product';
import { optionalParts } from '../../sentence/optionalParts';
import {
  conditionSlot,
  fewSlot,
  keySlot,
  measureSlot,
  scopeSlot,
  toggleSlot,
} from '../../sentence/slots';
import type { ConditionalSpec } from './spec';

type Row = ConditionalSpec['rows'][number];
type Column = ConditionalSpec['columns'][number];

/** Up to so many columns each offer a condition of their own in the sentence itself. */
const OFFERED = 3;

/** `Count of records and mean of Delay where Delay is at least 10; where Weather is gale; and everything else.` */
export function conditionalSentence(spec: ConditionalSpec, names: Names): Part<ConditionalSpec>[] {
  const withColumns = (columns: Column[]): ConditionalSpec => ({ ...spec, columns });
  const column = (of: Column | null, k: number): Part<ConditionalSpec>[] => {
    const measure = measureSlot<ConditionalSpec>(
      `columns[${k}].measure`,
      of?.measure ?? null,
      names,
      (next) =>
        withColumns(replacedAt<Column>(spec.columns, k, next ? { ...of, measure: next } : null)),
      { needed: spec.columns.length === 1 },
    );
    if (!of) return [measure];
    const only = conditionSlot<ConditionalSpec>(
      `columns[${k}].condition`,
      of.condition ?? null,
      of.name ?? null,
      names,
      (condition, name) =>
        withColumns(
          replacedAt<Column>(spec.columns, k, {
            measure: of.measure,
            ...(condition && { condition }),
            ...(condition && name && { name }),
          }),
        ),
      { empty: 'only where…' },
    );
    if (of.condition) return [measure, ' only where ', only];
    return spec.columns.length <= OFFERED ? [measure, ' ', only] : [measure];
  };
  const withRows = (rows: Row[]): ConditionalSpec => {
    const { key: _, ...rest } = spec;
    return { ...rest, rows };
  };
  const row = (of: Row | null, k: number): Part<ConditionalSpec> =>
    conditionSlot<ConditionalSpec>(
      `rows[${k}].condition`,
      of?.condition ?? null,
      of?.name ?? '',
      names,
      (condition, name) =>
        withRows(
          replacedAt<Row>(
            spec.rows,
            k,
            condition ? { name: rowName(condition, name, names), condition } : null,
          ),
        ),
      { empty: spec.rows.length ? 'or where…' : 'where…' },
    );
  const key = keySlot<ConditionalSpec>(
    'key',
    spec.key ?? null,
    names,
    (next) => {
      const { key: _, ...rest } = spec;
      return next ? { ...rest, rows: [], everythingElse: false, key: next } : rest;
    },
    { empty: spec.rows.length ? 'a row for each value of…' : 'for each…' },
  );
  const rest = toggleSlot<ConditionalSpec>(
    'everythingElse',
    'everything else',
    spec.everythingElse,
    (everythingElse) => ({ ...spec, everythingElse }),
  );
  const product = productOf(spec.columns);
  const columns = spec.columns.map((c, k) => column(c, k));
  return begun<ConditionalSpec>([
    ...(product
      ? productParts(product, names, withColumns)
      : [
          ...columns.flatMap((parts, k): Part<ConditionalSpec>[] => [
            ...(k === 0 ? [] : [k === columns.length - 1 ? ' and ' : ', ']),
            ...parts,
          ]),
          ' ',
          ...column(null, spec.columns.length),
        ]),
    ...(spec.key
      ? [' for each ', key]
      : [
          ...(spec.rows.length ? [' where '] : [' ']),
          ...listedParts(spec.rows.map(row), '; where ', '; where '),
          ' ',
          row(null, spec.rows.length),
        ]),
    ...optionalParts<ConditionalSpec>([
      ...(spec.key ? [] : [{ slot: rest, usual: !spec.everythingElse, before: '; and for ' }]),
      ...(spec.key ? [] : [{ slot: key, usual: true }]),
      {
        slot: fewSlot<ConditionalSpec>(spec.few, (few) => ({ ...spec, few })),
        usual: spec.few === 10,
      },
      scopeSlot<ConditionalSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

/** The name of a row: what was typed, or its condition in words. */
const rowName = (condition: Condition, name: string | null, names: Names): string =>
  (name?.trim() || describeCondition(condition, names)).slice(0, 200);

/** `Count of records and mean of Delay, each where Delay is at least 10; where Weather is gale` */
function productParts(
  { measures, conditions }: Product,
  names: Names,
  set: (columns: Column[]) => ConditionalSpec,
): Part<ConditionalSpec>[] {
  const measure = (k: number): Part<ConditionalSpec> =>
    measureSlot<ConditionalSpec>(
      `columns[${k}].measure`,
      measures[k] ?? null,
      names,
      (next) => set(columnsOf({ measures: replacedAt(measures, k, next), conditions })),
      { needed: measures.length === 1 },
    );
  const condition = (k: number): Part<ConditionalSpec> =>
    conditionSlot<ConditionalSpec>(
      `columns[${k * measures.length}].condition`,
      conditions[k] ?? null,
      null,
      names,
      (next) => {
        const others = replacedAt(conditions, k, next);
        // Without any condition the measures stand as they are.
        return set(
          others.length
            ? columnsOf({ measures, conditions: others })
            : measures.map((m) => ({ measure: m })),
        );
      },
      { empty: 'or where…' },
    );
  return [
    ...listedParts(measures.map((_, k) => measure(k))),
    ' ',
    measure(measures.length),
    ', each where ',
    ...listedParts(
      conditions.map((_, k) => condition(k)),
      '; where ',
      '; where ',
    ),
    ' ',
    condition(conditions.length),
  ];
}
