import { compareText } from '../../core/table/collate';
import { fromMoments } from '../../core/measure/fromMoments';
import { fromSlice } from '../../core/measure/fromSlices';
import { measureWords, suits, type Measure, type MeasureKind } from '../../core/measure/measure';
import { reckonMoments } from '../../core/measure/moments';
import { gather } from '../../core/measure/slices';
import { valuesOf } from '../../core/measure/valuesOf';
import { foldText } from '../../core/scope/textTest';
import { typeName } from '../../core/read/infer';
import { fullScalar } from '../../core/table/cell';
import { isText } from '../../core/table/column';
import { showCount } from '../../core/table/format';
import { columnOf } from '../../core/table/table';
import { figureText } from '../../core/tally/ledger/figureText';
import type { ColumnFacts, ReplyOf } from '../protocol';
import type { Reckoned } from '../reckoning';
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
export function answerFacts(r: Reckoned, id: string, counted: Int32Array): ColumnFacts {
  const column = columnOf(r.table, id);
  const { values, codeOf } = valuesOf(column);
  const one = new Int32Array(values.length);
  const moments = reckonMoments(values, one, 1, counted, true);
  const slice = gather(values, one, 1, counted);
  const text = (measure: Measure, value: number): string =>
    figureText(measure, column, value, r.doc.formats);
  const unread = isText(column)
    ? 0
    : counted.reduce((n, i) => n + (column.unread.has(i) ? 1 : 0), 0);
  const facts = [
    { name: 'values', value: showCount(moments.count(0)) },
    { name: 'blank', value: showCount(counted.length - moments.count(0) - unread) },
  ];
  if (!isText(column)) facts.push({ name: 'unread', value: showCount(unread) });
  facts.push({
    name: 'distinct',
    value: showCount(fromSlice({ kind: 'distinct' }, slice.values, 0, slice.values.length)),
  });
  for (const kind of SHOWN) {
    if (!suits(kind, column)) continue;
    const measure: Measure = { kind, column: id };
    const raw =
      fromMoments(kind, moments, 0) ?? fromSlice(measure, slice.values, 0, slice.values.length);
    const value = codeOf && raw === raw ? codeOf(raw) : raw;
    facts.push({ name: measureWords(measure), value: text(measure, value) });
  }
  return {
    column: id,
    name: column.name,
    type: typeName[column.type],
    unit: column.unit,
    facts,
    distribution: distributionOf(column, counted, isText(column) ? 12 : PANEL_BINS),
  };
}

/** Distinct values of a column over a selection with their counts, commonest first; for menus. */
export function answerValues(
  r: Reckoned,
  id: string,
  search: string,
  limit: number,
  records: Int32Array,
): ReplyOf<'values'> {
  const column = columnOf(r.table, id);
  const wanted = foldText(search);
  let items: { text: string; count: number }[];
  let blank = 0;
  if (isText(column)) {
    const counts = countTexts(column, records);
    items = column.dictionary.map((text, code) => ({ text, count: counts[code] }));
    blank = records.length - counts.reduce((a, b) => a + b, 0);
  } else {
    const byValue = new Map<number, number>();
    for (const i of records) {
      const v = column.values[i];
      if (v === v) byValue.set(v, (byValue.get(v) ?? 0) + 1);
      else if (!column.unread.has(i)) blank++;
    }
    items = [...byValue].map(([v, count]) => ({ text: fullScalar(column, v), count }));
  }
  items = items.filter(
    (item) => item.count > 0 && (wanted === '' || foldText(item.text).includes(wanted)),
  );
  items.sort((a, b) => b.count - a.count || compareText(a.text, b.text));
  return { items: items.slice(0, limit), more: Math.max(0, items.length - limit), blank };
}
