import { sortByColumn, type SortedColumn } from '../../arrange/sort';
import { columnFor } from '../../expression/columnFor';
import type { Steps } from '../../steps/steps';
import { count, has, type Bitset } from '../../table/bitset';
import { fullCell, fullScalar } from '../../table/cell';
import { isMissing, isText, type ScalarColumn } from '../../table/column';
import { counted } from '../../table/format';
import { recordsOf, selectionOf, type Base } from '../base';
import { TallyRefused, type TallyFigures } from '../kind';
import {
  figureOf,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type Warning,
  shareOf,
} from '../result';
import { withinTop, type Ties } from './places';
import type { RankingSpec } from './spec';

/** Records in order of their places; records without a value are not ranked. */
export interface RankedRecords {
  readonly order: Int32Array;
  readonly places: Float64Array | Int32Array;
}

/**
 * Ranks the records of a selection by a column. The sort is stable over the current order, so that
 * ties "in order" follow it.
 */
export function* rankBy(
  selection: Bitset,
  column: ScalarColumn,
  descending: boolean,
  ties: Ties,
  current: Int32Array,
): Steps<RankedRecords> {
  const sorted = yield* sortByColumn(column, { descending, blanks: 'last' }, current);
  yield undefined;
  return placeSorted(column.values, sorted, selection, ties);
}

/** One pass over the sorted records: those of the selection that have a value, with their places. */
function placeSorted(
  values: Float64Array,
  { order: sorted, tied }: SortedColumn,
  selection: Bitset,
  ties: Ties,
): RankedRecords {
  // Records without a value come last.
  let present = sorted.length;
  while (present > 0 && values[sorted[present - 1]] !== values[sorted[present - 1]]) present--;
  const all = count(selection) === sorted.length;
  const order = all ? sorted.subarray(0, present) : new Int32Array(present);
  const places = ties === 'mean' ? new Float64Array(present) : new Int32Array(present);
  const [inOrder, noGap, mean] = [ties === 'order', ties === 'noGap', ties === 'mean'];
  let [n, start, distinct, fresh] = [0, 0, 0, true];
  for (let k = 0; k < present; k++) {
    if (tied[k] === 0) fresh = true;
    if (!all) {
      if (!has(selection, sorted[k])) continue;
      order[n] = sorted[k];
    }
    if (fresh) {
      if (mean) places.fill((start + n + 1) / 2, start, n);
      start = n;
      distinct++;
      fresh = false;
    }
    places[n] = inOrder ? n + 1 : noGap ? distinct : start + 1;
    n++;
  }
  if (mean) places.fill((start + n + 1) / 2, start, n);
  return { order: order.subarray(0, n), places: places.subarray(0, n) };
}

/** Rows of a ranking beyond this are refused: nobody reads them, and they would fill the memory. */
const MOST_ROWS = 1_000_000;

export function* rankRecords(base: Base, spec: RankingSpec): Steps<TallyFigures> {
  const { table } = base;
  const column = columnFor(table, spec.by.column ?? '');
  if (isText(column)) throw new TallyRefused(`“${column.name}” is text and cannot be ranked.`);
  const selection = selectionOf(base, spec.scope);
  const records = recordsOf(selection);
  const { order, places } = yield* rankBy(
    selection,
    column,
    spec.from === 'highest',
    spec.ties,
    base.order,
  );
  const { values } = column;
  const from =
    spec.bottom === undefined ? 0 : order.length - withinBottom(values, order, spec.bottom);
  const to = spec.top === undefined ? order.length : withinTop(values, order, spec.top);
  if (to - from > MOST_ROWS)
    throw new TallyRefused(
      `This makes ${counted(to - from, 'row')}. Ask for the top or bottom of them.`,
    );
  const adds = column.type === 'number';
  let total = 0;
  for (const i of order) total += values[i];
  const shown = spec.show.map((ref) => columnFor(table, ref));
  const write = (v: number): Figure =>
    v !== v ? null : column.type === 'number' ? figureOf(v) : fullScalar(column, v);
  const rows: FigureRow[] = [];
  let cumulative = 0;
  for (let k = 0; k < order.length; k++) {
    const i = order[k];
    cumulative += values[i];
    if (k < from || k >= to) continue;
    rows.push({
      kind: 'group',
      level: 0,
      cells: [
        places[k],
        i + 1,
        ...shown.map((c) => (isMissing(c, i) ? null : fullCell(c, i))),
        write(values[i]),
        ...(adds ? [shareOf(values[i], total), shareOf(cumulative, total)] : []),
      ],
      where: { records: [i] },
    });
  }
  const left = [...order.subarray(0, from), ...order.subarray(to)];
  if (left.length > 0) {
    const sum = left.reduce((s, i) => s + values[i], 0);
    rows.push({
      kind: 'others',
      level: 0,
      cells: [
        null,
        `${counted(left.length, 'other record')}`,
        ...shown.map(() => null),
        adds ? figureOf(sum) : null,
        ...(adds ? [shareOf(sum, total), null] : []),
      ],
      where: { records: left },
    });
  }
  const columns: FigureColumn[] = [
    { key: 'place', title: 'Place', unit: '', type: 'rank', says: 'The place by this figure.' },
    { key: 'record', title: 'Record', unit: '', type: 'number', decimals: 0 },
    ...shown.map((c): FigureColumn => ({ key: c.id, title: c.name, unit: c.unit, type: 'text' })),
    {
      key: 'value',
      title: column.name,
      unit: column.unit,
      type: column.type,
      decimals: column.decimals,
      ...(adds && { measure: { kind: 'sum' as const, column: spec.by.column } }),
    },
    ...(adds
      ? [
          {
            key: 'share',
            title: 'Share',
            unit: '',
            type: 'share' as const,
            says: 'The value ÷ the sum of all ranked.',
          },
          {
            key: 'cumulativeShare',
            title: 'Cumulative share',
            unit: '',
            type: 'share' as const,
            reach: 'above' as const,
            says: 'The values down to this one ÷ the sum of all ranked.',
          },
        ]
      : []),
  ];
  return {
    tables: [{ name: 'main', caption: 'Ranking', labels: 2 + shown.length, columns, rows }],
    warnings: notes(records.length - order.length, spec, to - from),
  };
}

/** The same from the other end. */
export function withinBottom(
  values: ArrayLike<number>,
  order: ArrayLike<number>,
  k: number,
): number {
  const turned = Int32Array.from(order).reverse();
  return withinTop(values, turned, k);
}

function notes(unranked: number, spec: RankingSpec, kept: number): Warning[] {
  const out: Warning[] = [];
  if (unranked > 0)
    out.push({
      code: 'not-ranked',
      says: `${counted(unranked, 'record')} without a value ${unranked === 1 ? 'is' : 'are'} not ranked.`,
    });
  const asked = spec.top ?? spec.bottom;
  if (asked !== undefined && kept > asked)
    out.push({
      code: 'tie-at-edge',
      says: `A tie at the edge is kept: ${kept} instead of ${asked}.`,
    });
  return out;
}
