import { recordNumber } from '../../../table/recordNumber';
import { TallyRefused } from '../../../errors';
import { columnFor } from '../../../expression/columnFor';
import { inStretches, partOf, STRIDE, type Task } from '../../../task/task';
import { CompensatedSum } from '../../../measure/compensated';
import type { Condition } from '../../../selection/condition';
import { fullCell } from '../../../table/cell';
import { isMissing, isText, type Column, type ScalarColumn } from '../../../table/column';
import { counted } from '../../../table/format';
import { recordTable } from '../../answer/answer';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { cellFigure, shareColumn } from '../../answer/figure';
import { type TallyAnswer } from '../../kind/kind';
import {
  figureOf,
  shareOf,
  type Figure,
  type FigureColumn,
  type FigureRow,
} from '../../answer/result';
import { warn, type Warning } from '../../trust/warnings';
import { downTo } from './downTo';
import { withinTop } from './places';
import { rankBy } from './rankBy';
import { recordChange } from './recordChange';
import type { RankingSpec } from './spec';

/** The share of ranking in the whole; what is left is sums and changes. */
const RANKING = 0.9;

/** Every record with a value in its place, or the first or last of them and all others in one row. */
export function* rankRecords(input: TallyInput, spec: RankingSpec): Task<TallyAnswer> {
  const { table } = input;
  const column = columnFor(table, spec.by.column ?? '');
  if (isText(column)) throw new TallyRefused(`“${column.name}” is text and cannot be ranked.`);
  const selection = selectionOf(input, spec.scope);
  const { order, places } = yield* partOf(
    rankBy(selection, column, spec.from === 'highest', spec.ties, input.order),
    0,
    RANKING,
  );
  const { values } = column;
  const from =
    spec.bottom === undefined ? 0 : order.length - withinBottom(values, order, spec.bottom);
  const to = spec.top === undefined ? order.length : withinTop(values, order, spec.top);
  const adds = column.type === 'number';
  const sums = yield* cumulative(values, order);
  const total = order.length ? sums[order.length - 1] : 0;
  yield RANKING;
  const change = yield* recordChange(input, spec, selection, column);
  const shown = spec.show.map((ref) => columnFor(table, ref));
  const kept = to - from;
  const left = order.length - kept;
  const ranked = (k: number): FigureRow => {
    const i = order[k];
    return {
      kind: 'group',
      level: 0,
      cells: [
        places[k],
        recordNumber(i),
        ...shown.map((c) => (isMissing(c, i) ? null : fullCell(c, i))),
        cellFigure(column, i),
        ...(adds ? [shareOf(values[i], total), shareOf(sums[k], total)] : []),
        ...(change ? change.cells(i) : []),
      ],
      where: { kind: 'records', not: false, records: [recordNumber(i)] },
    };
  };
  const others = (): FigureRow => {
    const sum = total - (kept ? sums[to - 1] - (from ? sums[from - 1] : 0) : 0);
    return {
      kind: 'others',
      stands: left,
      keys: [null, null, ...shown.map(() => null)],
      level: 0,
      cells: [
        null,
        counted(left, 'other record'),
        ...shown.map(() => null),
        adds ? figureOf(sum) : null,
        ...(adds ? [shareOf(sum, total), null] : []),
        ...(change ? [null, null, null] : []),
      ],
      where: beyond(spec, column, order[spec.bottom === undefined ? to - 1 : from]),
    };
  };
  const about = {
    name: 'main',
    caption: 'Ranking',
    labels: 2 + shown.length,
    whole: true,
    columns: [...columnsOf(spec, column, shown), ...(change?.columns ?? [])],
  };
  return {
    tables: [
      recordTable(about, {
        length: kept + Number(left > 0),
        row: (n) => (n < kept ? ranked(from + n) : others()),
        recordAt: (n) => (n < kept ? order[from + n] : -1),
        rowOf: (record) => order.subarray(from, to).indexOf(record),
        // Only values are added up: the others' are what the kept leave of the whole.
        number: (n, c) =>
          c !== about.labels
            ? NaN
            : n < kept
              ? values[order[from + n]]
              : present(others().cells[c]),
        *carried(n) {
          return n < kept ? yield* downTo(spec, column, order, from + n) : null;
        },
      }),
    ],
    warnings: [
      ...notes(recordsOf(selection).length - order.length, spec, kept),
      ...(change?.warnings ?? []),
    ],
  };
}

const present = (cell: Figure): number => (typeof cell === 'number' ? cell : NaN);

/** Sums from the first place to each, compensated. */
export function* cumulative(values: Float64Array, order: Int32Array): Task<Float64Array> {
  const out = new Float64Array(order.length);
  const sum = new CompensatedSum();
  // Sorted records lie all over memory.
  yield* inStretches(
    order.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        sum.add(values[order[k]]);
        out[k] = sum.value;
      }
    },
    STRIDE / 2,
  );
  return out;
}

/** "All others" as a rule: a tie at the edge is kept, so they are the values beyond the edge's own. */
export function beyond(
  { by, from, bottom }: RankingSpec,
  column: ScalarColumn,
  edge: number,
): Condition {
  const higher = (from === 'highest') === (bottom !== undefined);
  const value = cellFigure(column, edge);
  return {
    kind: 'leaf',
    column: by.column ?? column.id,
    not: false,
    test: { test: 'compare', op: higher ? 'gt' : 'lt', value: value ?? 0 },
  };
}

/** The columns of ranked records. @param reach which of the rows before a cumulative share is of */
export function columnsOf(
  { by }: RankingSpec,
  column: ScalarColumn,
  shown: readonly Column[],
  reach: 'above' | 'run' = 'above',
): FigureColumn[] {
  const adds = column.type === 'number';
  return [
    { key: 'place', title: 'Place', unit: '', type: 'rank', words: 'The place by this figure.' },
    { key: 'record', title: 'Record', unit: '', type: 'number', decimals: 0 },
    ...shown.map((c): FigureColumn => ({ key: c.id, title: c.name, unit: c.unit, type: 'text' })),
    {
      key: 'value',
      title: column.name,
      unit: column.unit,
      type: column.type,
      ...(adds
        ? { decimals: column.decimals, measure: { kind: 'sum', column: by.column } }
        : { grain: column.grain }),
    },
    ...(adds
      ? [
          shareColumn('share', 'Share', 'The value ÷ the sum of all ranked.'),
          {
            ...shareColumn(
              'cumulativeShare',
              'Cumulative share',
              'The values down to this one ÷ the sum of all ranked.',
            ),
            reach,
          },
        ]
      : []),
  ];
}

/** The same from the other end. */
export function withinBottom(
  values: ArrayLike<number>,
  order: ArrayLike<number>,
  k: number,
): number {
  if (order.length <= k || k === 0) return Math.min(order.length, k);
  const edge = values[order[order.length - k]];
  let n = k;
  while (n < order.length && values[order[order.length - 1 - n]] === edge) n++;
  return n;
}

export function notes(unranked: number, spec: RankingSpec, kept: number): Warning[] {
  const out: Warning[] = [];
  if (unranked > 0)
    out.push(
      warn(
        'not-ranked',
        `${counted(unranked, 'record')} without a value ${unranked === 1 ? 'is' : 'are'} not ranked.`,
      ),
    );
  const asked = spec.top ?? spec.bottom;
  if (asked !== undefined && kept > asked)
    out.push(warn('tie-at-edge', `A tie at the edge is kept: ${kept} instead of ${asked}.`));
  return out;
}
