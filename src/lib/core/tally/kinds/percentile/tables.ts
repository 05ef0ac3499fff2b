import {
  DEFINITION_WORDS,
  lowerBound,
  percentileRank,
  quantileBy,
  quantilePlace,
  RANK_WORDS,
  upperBound,
  type Definition,
} from '../../../measure/quantileDefinitions';
import type { Condition } from '../../../selection/condition';
import type { Task } from '../../../task/task';
import { fullScalar } from '../../../table/cell';
import type { ScalarColumn } from '../../../table/column';
import { madeRows, tableOf, type AnswerTable } from '../../answer/answer';
import { figureOf, type Figure, type FigureColumn, type FigureRow } from '../../answer/result';
import type { PercentileSpec } from './spec';

/** One group's values in rising order. */
export interface Ordered {
  readonly label: string | null;
  readonly key: Figure;
  readonly values: Float64Array;
  readonly where?: Condition;
}

/** How many values a group has. */
const valuesColumn = ({ column }: PercentileSpec): FigureColumn => ({
  key: 'values',
  title: 'Values',
  unit: '',
  type: 'count',
  measure: { kind: 'values', column },
});

const TIES: FigureColumn = {
  key: 'ties',
  title: 'Values equal to it',
  unit: '',
  type: 'count',
  words: 'Values that are exactly this one.',
};

/** The asked percentiles of each group, with their places among the ordered values. */
export function* percentileTable(
  labels: readonly FigureColumn[],
  spec: PercentileSpec,
  column: ScalarColumn,
  groups: readonly Ordered[],
): Task<AnswerTable> {
  const definition = spec.definition as Definition;
  const write = (v: number): Figure => writeValue(column, v);
  const rows = yield* madeRows(groups, ({ label, key, values, where }) =>
    spec.percentiles.map((percent): FigureRow => {
      const n = values.length;
      const p = percent / 100;
      const q = quantileBy(values, p, definition);
      const { j, at } = n ? quantilePlace(n, p, definition) : { j: NaN, at: NaN };
      const neighbour = (k: number): Figure =>
        n ? write(values[Math.min(n, Math.max(1, k)) - 1]) : null;
      return {
        kind: 'group',
        level: 0,
        cells: [
          ...(spec.key ? [label] : []),
          percent,
          write(q),
          n,
          figureOf(Math.min(n, Math.max(1, at))),
          neighbour(j),
          neighbour(j + 1),
          n ? upperBound(values, q) - lowerBound(values, q) : 0,
        ],
        keys: [...(spec.key ? [key] : []), percent],
        ...(where && { where }),
      };
    }),
  );
  const type = column.type;
  const value = (
    key: string,
    title: string,
    words: string,
    decimals = column.decimals,
  ): FigureColumn => ({ key, title, unit: column.unit, type, decimals, words });
  const columns: FigureColumn[] = [
    ...labels,
    { key: 'percentile', title: 'Percentile', unit: '%', type: 'number' },
    value(
      'value',
      `Value of ${column.name}`,
      `Definition ${definition}: ${DEFINITION_WORDS[definition]}.`,
      // Between two values it has a place more than they have.
      Math.max(column.decimals, 1),
    ),
    valuesColumn(spec),
    {
      key: 'place',
      title: 'Place in order',
      unit: '',
      type: 'number',
      decimals: 2,
      words: 'Where it falls among the ordered values, the first being 1.',
    },
    value('below', 'Value before', 'The ordered value at or before that place.'),
    value('above', 'Value behind', 'The ordered value behind it.'),
    TIES,
  ];
  return tableOf({
    name: 'main',
    caption: 'Percentiles',
    labels: spec.key ? 2 : 1,
    columns,
    rows,
  });
}

/** Decimals that a number was given with. */
const decimalsOf = (value: number): number => (/\.(\d+)$/.exec(String(value))?.[1] ?? '').length;

/** Where asked values stand among those of each group. */
export function* rankTable(
  labels: readonly FigureColumn[],
  spec: PercentileSpec,
  column: ScalarColumn,
  groups: readonly Ordered[],
): Task<AnswerTable> {
  const rows = yield* madeRows(groups, ({ label, key, values, where }) =>
    spec.ranksOf.map((v): FigureRow => {
      const [under, atOrUnder] = [lowerBound(values, v), upperBound(values, v)];
      return {
        kind: 'group',
        level: 0,
        cells: [
          ...(spec.key ? [label] : []),
          writeValue(column, v),
          figureOf(percentileRank(values, v, spec.rankMethod)),
          values.length,
          under,
          atOrUnder - under,
        ],
        keys: [...(spec.key ? [key] : []), writeValue(column, v)],
        ...(where && { where }),
      };
    }),
  );
  const columns: FigureColumn[] = [
    ...labels,
    {
      key: 'value',
      title: column.name,
      unit: column.unit,
      type: column.type,
      // The asked values are written as they were given.
      decimals: Math.max(column.decimals, ...spec.ranksOf.map(decimalsOf)),
    },
    {
      key: 'rank',
      title: 'Percentile rank',
      unit: '',
      type: 'share',
      words: `${RANK_WORDS[spec.rankMethod]}.`,
    },
    valuesColumn(spec),
    {
      key: 'under',
      title: 'Values under it',
      unit: '',
      type: 'count',
      words: 'Values lower than this one.',
    },
    TIES,
  ];
  return tableOf({
    name: 'ranks',
    caption: 'Percentile ranks',
    labels: spec.key ? 2 : 1,
    columns,
    rows,
  });
}

const writeValue = (column: ScalarColumn, v: number): Figure =>
  v !== v ? null : column.type === 'number' ? figureOf(v) : fullScalar(column, Math.round(v));
