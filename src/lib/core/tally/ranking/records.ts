import { sortRecords } from '../../arrange/sort';
import { columnFor } from '../../expression/columnFor';
import type { Steps } from '../../steps/steps';
import { has, type Bitset } from '../../table/bitset';
import { fullCell, fullScalar } from '../../table/cell';
import { isMissing, isText, type ScalarColumn } from '../../table/column';
import { counted } from '../../table/format';
import type { Table } from '../../table/table';
import { recordsOf, selectionOf, type Base } from '../base';
import { TallyRefused, type TallyFigures } from '../kind';
import { figureOf, type Figure, type FigureColumn, type FigureRow, type Warning } from '../result';
import { placesOf, withinTop, type Ties } from './places';
import type { RankingSpec } from './spec';

/** Records in order of their places; records without a value are not ranked. */
export interface RankedRecords {
  readonly order: Int32Array;
  readonly places: Float64Array;
}

/**
 * Ranks the records of a selection by a column. The sort is stable over the current order, so that
 * ties "in order" follow it.
 */
export function* rankBy(
  table: Table,
  selection: Bitset,
  column: ScalarColumn,
  descending: boolean,
  ties: Ties,
  current: Int32Array,
): Steps<RankedRecords> {
  const alone: Table = { length: table.length, columns: [column] };
  const sorted = yield* sortRecords(
    alone,
    [{ column: column.id, descending, blanks: 'last' }],
    current,
  );
  const { values } = column;
  const order = new Int32Array(sorted.length);
  let n = 0;
  for (let k = 0; k < sorted.length; k++) {
    const i = sorted[k];
    if (values[i] === values[i] && has(selection, i)) order[n++] = i;
  }
  const ranked = order.subarray(0, n);
  yield undefined;
  return { order: ranked, places: placesOf(values, ranked, ties) };
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
    table,
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
        ...(adds ? [ratio(values[i], total), ratio(cumulative, total)] : []),
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
        ...(adds ? [ratio(sum, total), null] : []),
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

const ratio = (a: number, b: number): number | null => figureOf(b === 0 ? NaN : a / b);

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
