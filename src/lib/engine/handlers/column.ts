import { asChoice, choicesOf, type Choice } from '../../core/table/lookAlikes';
import { compareText } from '../../core/table/collate';
import { fromMoments } from '../../core/measure/fromMoments';
import { runsInParts } from '../../core/measure/runs';
import { measureWords, suits, type Measure, type MeasureKind } from '../../core/measure/measure';
import { momentsOf } from '../../core/measure/moments';
import { quantileBy } from '../../core/measure/quantileDefinitions';
import { mergedSort } from '../../core/sorting/mergedSort';
import { sortedValues } from '../../core/sorting/sorted';
import { valuesOf } from '../../core/measure/valuesOf';
import { foldText } from '../../core/selection/textTest';
import { inStretches, pausing, STRIDE, type Task } from '../../core/task/task';
import { fullScalar } from '../../core/table/cell';
import { isText, typeName, type Column, type TextColumn } from '../../core/table/column';
import { showCount } from '../../core/table/format';
import { columnOf } from '../../core/table/table';
import { looksLikeYears } from '../../core/table/years';
import { recordsOf } from '../../core/tally/input/input';
import { figureFrom, measureColumn } from '../../core/tally/answer/figure';
import { asksOfColumn } from '../../core/tally/wish/guesses';
import { figureText } from '../../core/tally/answer/figureText';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { ColumnFacts } from '../replies/column';
import { countTexts, distributionOf } from './distribution';

const SHOWN: readonly MeasureKind[] = [
  'sum',
  'mean',
  'median',
  'sd',
  'min',
  'lowerQuartile',
  'upperQuartile',
  'max',
  'mode',
];
const PANEL_BINS = 28;

/** The facts of a column over the counted records, and how its values fall. */
export function* answerFacts(session: Session, { column: id }: ArgsOf<'facts'>): Task<ColumnFacts> {
  const known = session.facts.get(id);
  if (known) return known;
  const { table, doc, counted } = session;
  const column = columnOf(table, id);
  const { values, codeOf } = yield* valuesOf(column);
  yield undefined;
  const moments = yield* momentsOf(values, counted, true);
  const range = { n: moments.count(0), lo: moments.min(0), hi: moments.max(0) };
  const sorted = yield* sortedValues(values, counted, range);
  const runs = yield* runsInParts(sorted);
  const unread = yield* unreadAmong(column, counted);
  const facts = [
    { name: 'values', value: showCount(sorted.length) },
    { name: 'blank', value: showCount(counted.length - sorted.length - unread) },
    ...(isText(column) ? [] : [{ name: 'unread', value: showCount(unread) }]),
    { name: 'distinct', value: showCount(runs.distinct) },
  ];
  for (const kind of SHOWN) {
    if (!suits(kind, column)) continue;
    const measure: Measure = { kind, column: id };
    const raw = fromMoments(kind, moments, 0) ?? fromSorted(kind, sorted, runs.value);
    const value = figureFrom(measure, column, codeOf && raw === raw ? codeOf(raw) : raw);
    facts.push({
      name: measureWords(measure),
      value: figureText(measureColumn(measure, table, kind), value, doc.formats),
    });
  }
  yield undefined;
  const reply: ColumnFacts = {
    column: id,
    name: column.name,
    type: typeName[column.type],
    unit: column.unit,
    facts,
    distribution: yield* distributionOf(column, counted, isText(column) ? 12 : PANEL_BINS, {
      sorted,
    }),
    mayBeYears: column.type === 'number' && column.unit === '' && looksLikeYears(column),
    asked: asksOfColumn(column.type),
  };
  session.facts.set(id, reply);
  return reply;
}

function* unreadAmong(column: Column, records: Int32Array): Task<number> {
  let n = 0;
  if (!isText(column) && column.unread.size > 0)
    yield* inStretches(records.length, (from, to) => {
      for (let k = from; k < to; k++) if (column.unread.has(records[k])) n++;
    });
  return n;
}

const SHARE: Partial<Record<MeasureKind, number>> = {
  median: 0.5,
  lowerQuartile: 0.25,
  upperQuartile: 0.75,
};

/** Quantiles by definition 7 of ordered values, and the mode. */
function fromSorted(kind: MeasureKind, sorted: Float64Array, commonest: number): number {
  const share = SHARE[kind];
  return kind === 'mode' || share === undefined ? commonest : quantileBy(sorted, share, 7);
}

function* blanksAmong({ codes }: TextColumn, records: Int32Array): Task<number> {
  let blank = 0;
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) if (codes[records[k]] < 0) blank++;
  });
  return blank;
}

/** The values of a column with their counts, those that look the same as one; for menus. */
export function* answerValues(
  { table, resolved }: Session,
  { column: id, search, limit }: ArgsOf<'values'>,
): Task<ReplyOf<'values'>> {
  const column = columnOf(table, id);
  const records = recordsOf(resolved.input.all);
  const wanted = foldText(search);
  const fits = (text: string): boolean => foldText(text).includes(wanted);
  if (isText(column)) {
    const counts = yield* countTexts(column, records);
    const blank = yield* blanksAmong(column, records);
    const asked = { most: limit, ...(wanted !== '' && { fits }) };
    const { choices, more } = yield* choicesOf(column, counts, asked);
    return { items: choices, more, blank };
  }
  const byValue = new Map<number, number>();
  let blank = 0;
  const note = (from: number, to: number): void => {
    for (let i = from; i < to; i++) {
      const v = column.values[i];
      if (v === v) byValue.set(v, (byValue.get(v) ?? 0) + 1);
      else if (!column.unread.has(i)) blank++;
    }
  };
  yield* inStretches(table.length, note, STRIDE >> 1);
  const found: Choice[] = [];
  const due = pausing(STRIDE >> 5);
  let looked = 0;
  for (const [v, count] of byValue) {
    const text = fullScalar(column, v);
    if (fits(text)) found.push(asChoice(text, count));
    if (due(++looked)) yield undefined;
  }
  const items = yield* mergedSort(
    found,
    (a, b) => b.count - a.count || compareText(a.text, b.text),
  );
  return { items: items.slice(0, limit), more: Math.max(0, items.length - limit), blank };
}
