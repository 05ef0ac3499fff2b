import { columnFor } from '../../expression/columnFor';
import { CompensatedSum, sumOf } from '../../measure/compensated';
import { totalGrouping } from '../../measure/grouping';
import { suits, type Measure } from '../../measure/measure';
import { computeMeasures } from '../../measure/compute';
import { isPartial } from '../../measure/partialColumn';
import { recordCount } from '../../table/recordCounts';
import { inStretches, STRIDE, type Task } from '../../task/task';
import { isText } from '../../table/column';
import { counted, givenNumber, listed } from '../../table/format';
import type { Answer, AnswerTable } from '../answer/answer';
import { orderedFor, recordsOf, selectionOf, type TallyInput } from '../input/input';
import { RELATIVE } from '../spec/fault';
import { figureFrom, shownColumn, totalOfColumn } from '../answer/figure';
import { figureText } from '../answer/figureText';
import type { Footing } from './footing';
import type { Figure } from '../answer/result';

/** What was compared so far, and the first thing that was apart. */
interface Comparing {
  compared: number;
  failure: Footing['failure'];
}

type Told = (table: AnswerTable, row: number, column: number, difference: number) => void;

/**
 * Checks every table of an answer: parts add up down and across, within n · 2⁻⁵² of the sum of
 * magnitudes (Neumaier 1974); grand totals that add are compared with the records without any
 * group, and those that do not (mean, median, distinct) are computed anew from the records.
 */
export function* checkFooting(input: TallyInput, answer: Answer): Task<Footing> {
  const so: Comparing = { compared: 0, failure: null };
  const told: Told = (table, row, column, difference) => {
    const { key, title } = table.columns[column];
    so.failure ??= {
      table: table.name,
      row,
      column: key,
      where: whereOf(table, row),
      title,
      difference,
    };
  };
  for (const table of answer.tables) {
    so.compared += yield* footDown(table, told);
    so.compared += yield* footAcross(table, told);
    so.compared += yield* footWhole(input, answer, table, told);
  }
  const notAdding = answer.tables.flatMap((t) =>
    t.columns.filter((c) => c.measure && !c.adds && !c.where).map((c) => c.title),
  );
  const [main] = answer.tables;
  return {
    foots: so.failure === null,
    ...so,
    notAdding: [...new Set(notAdding)],
    words: yield* words(main, so),
  };
}

const whereOf = (table: AnswerTable, row: number): string =>
  table
    .row(row)
    .cells.slice(0, table.labels)
    .filter((label) => label !== null)
    .join(' › ') || 'the whole';

function* words(main: AnswerTable | undefined, { compared, failure }: Comparing): Task<string> {
  if (failure) {
    const { where, title, difference } = failure;
    const far = Math.abs(difference);
    const shown = figureText({ key: '', title, unit: '', type: 'number' }, far);
    // A difference too small for the usual digits is never told as none.
    const by = /[1-9]/.test(shown) ? shown : givenNumber(Number(far.toPrecision(2)));
    return `Does not foot: the parts of ${title} in ${where} come to ${by} ${difference > 0 ? 'more' : 'less'} than it.`;
  }
  if (compared === 0 || !main) return 'Nothing here adds up, so nothing was compared.';
  const groups = yield* groupsByLevel(main);
  const across = main.columns.some((c) => c.partOf !== undefined);
  if (groups.length === 0)
    return compared === 1
      ? 'Its total agrees with the records.'
      : `Its ${counted(compared, 'total')} agree with the records.`;
  const words = groups.map((n, l) =>
    counted(n, main.levels?.[l] ?? (l === 0 ? 'group' : 'subgroup')),
  );
  const one = groups.length === 1 && groups[0] === 1;
  return `${listed(words)} foot${one ? 's' : ''} to the grand total${across ? ', down and across' : ''}.`;
}

/** How many rows stand at each level under the whole; none where no row is a part of another. */
function* groupsByLevel(table: AnswerTable): Task<number[]> {
  if (table.flat) return [];
  const depth = new Int32Array(table.length);
  const out: number[] = [];
  yield* inStretches(table.length, (from, to) => {
    for (let n = from; n < to; n++) {
      const whole = table.partOf(n);
      if (whole < 0) continue;
      depth[n] = depth[whole] + 1;
      out[depth[n] - 1] = (out[depth[n] - 1] ?? 0) + 1;
    }
  });
  return out;
}

const present = (v: number): number => (v === v ? v : 0);

/** Numbers looked at between two pauses: each may be computed from a row of its own. */
const NUMBERS = STRIDE >> 4;

function* footDown(table: AnswerTable, told: Told): Task<number> {
  if (table.flat || !table.columns.some((c) => c.adds)) return 0;
  const whole = new Int32Array(table.length);
  let any = false;
  yield* inStretches(table.length, (from, to) => {
    for (let n = from; n < to; n++) {
      whole[n] = table.partOf(n);
      if (whole[n] >= 0) any = true;
    }
  });
  if (!any) return 0;
  let compared = 0;
  for (const [c, { adds }] of table.columns.entries()) {
    if (!adds) continue;
    const sums = new Map<number, CompensatedSum>();
    yield* inStretches(
      table.length,
      (from, to) => {
        for (let n = from; n < to; n++) {
          if (whole[n] < 0) continue;
          let sum = sums.get(whole[n]);
          if (!sum) sums.set(whole[n], (sum = new CompensatedSum()));
          sum.add(present(table.number(n, c)));
        }
      },
      NUMBERS,
    );
    for (const [n, sum] of sums) {
      compared++;
      const difference = sum.value - present(table.number(n, c));
      if (Math.abs(difference) > adds.bound) told(table, n, c, difference);
    }
    yield undefined;
  }
  return compared;
}

function* footAcross(table: AnswerTable, told: Told): Task<number> {
  const parts = new Map<number, number[]>();
  table.columns.forEach(({ partOf, adds }, c) => {
    if (partOf === undefined || !adds) return;
    const list = parts.get(partOf);
    if (list) list.push(c);
    else parts.set(partOf, [c]);
  });
  let compared = 0;
  for (const [whole, columns] of parts) {
    const bound = table.columns[whole].adds?.bound ?? 0;
    yield* inStretches(
      table.length,
      (from, to) => {
        for (let n = from; n < to; n++) {
          const sum = sumOf(columns.map((c) => present(table.number(n, c))));
          const difference = sum - present(table.number(n, whole));
          if (Math.abs(difference) > bound) told(table, n, whole, difference);
        }
      },
      Math.max(1, Math.floor(NUMBERS / columns.length)),
    );
    compared += table.length;
  }
  return compared;
}

/** The whole against the records themselves, without any group. */
function* footWhole(
  input: TallyInput,
  answer: Answer,
  table: AnswerTable,
  told: Told,
): Task<number> {
  if (table.length === 0) return 0;
  const { kind, where, cells } = table.row(0);
  const total = kind === 'total' && !where;
  if (!total && !table.whole) return 0;
  const selection = selectionOf(input, answer.scope);
  const records = recordsOf(selection);
  const leafOf = new Int32Array(input.table.length);
  let compared = 0;
  for (const [c, column] of table.columns.entries()) {
    const { measure } = column;
    if (!measure || column.where) continue;
    // Of a text there is no deviation: nothing was computed that could be computed anew.
    if (
      measure.column !== undefined &&
      !suits(measure.kind, columnFor(input.table, measure.column))
    )
      continue;
    // Rows in places leave out what has no figure: only what adds up over values is whole.
    if (!total && measure.kind !== 'sum' && measure.kind !== 'values') continue;
    const direct = yield* directly(input, measure, records);
    if (direct) {
      const parts = total ? present(table.number(0, c)) : yield* summed(table, c);
      const bound = column.adds?.bound ?? direct.bound;
      compared++;
      if (Number.isFinite(direct.total) && Math.abs(parts - direct.total) > bound)
        told(table, 0, c, parts - direct.total);
    } else if (total && !RELATIVE.includes(measure.kind)) {
      const { order = input.order } = answer;
      const ordered = yield* orderedFor({ order }, selection, [measure]);
      const [[[anew]]] = yield* computeMeasures(
        { table: input.table, records, ordered, leafOf, leaves: 1 },
        [totalGrouping(1)],
        [measure],
      );
      compared++;
      const apart = distance(
        cells[c],
        figureFrom(measure, shownColumn(measure, input.table), anew),
      );
      if (apart !== 0) told(table, 0, c, apart);
    }
    yield undefined;
  }
  return compared;
}

/** A count or sum over the records, without any group; null for measures that do not add. */
function* directly(
  input: TallyInput,
  { kind, column: ref }: Measure,
  records: Int32Array,
): Task<{ total: number; bound: number } | null> {
  if (kind === 'records') return { total: recordCount(input.table, records), bound: 0 };
  if (ref === undefined || !['sum', 'values', 'blanks', 'unread'].includes(kind)) return null;
  const column = columnFor(input.table, ref);
  const { total, values, magnitude } = yield* totalOfColumn(input.table, column, records);
  if (kind === 'sum') return { total, bound: values * 2 ** -52 * magnitude };
  if (kind === 'values') return { total: values, bound: 0 };
  let unread = 0;
  if (isPartial(column)) for (const row of records) unread += column.partial.unread[row];
  else if (!isText(column) && column.unread.size > 0)
    yield* inStretches(records.length, (from, to) => {
      for (let k = from; k < to; k++)
        if (column.unread.has(records[k])) unread += input.table.weights?.[records[k]] ?? 1;
    });
  return {
    total: kind === 'unread' ? unread : recordCount(input.table, records) - values - unread,
    bound: 0,
  };
}

function* summed(table: AnswerTable, c: number): Task<number> {
  const sum = new CompensatedSum();
  yield* inStretches(
    table.length,
    (from, to) => {
      for (let n = from; n < to; n++) sum.add(present(table.number(n, c)));
    },
    STRIDE / 2,
  );
  return sum.value;
}

/** How far two figures are apart: 0 where they are the same, or differ by rounding alone. */
function distance(a: Figure, b: Figure): number {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= 1e-9 * Math.max(Math.abs(a), Math.abs(b)) ? 0 : a - b;
  return a === b ? 0 : NaN;
}
