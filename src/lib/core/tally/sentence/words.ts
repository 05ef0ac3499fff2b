import type { Band, Bands } from '../../arrange/bands';
import type { GroupKey } from '../../arrange/groupKey';
import type { SortKey } from '../../arrange/sortKey';
import { measureWords, needsOther, ofRecords, type Measure } from '../../measure/measure';
import { expressionIn } from '../../expression/reference';
import { givenNumber } from '../../table/format';
import type { Period } from '../../table/period';
import { listed } from '../../table/format';
import { nameIn, type Names } from '../kind/kind';
import type { ScopeName } from '../answer/result';

/** How a reference is called: a column by its name, an expression by itself. */
export const nameOf = (names: Names, ref: string | undefined): string =>
  ref === undefined ? '' : (expressionIn(ref) ?? nameIn(names, ref));

const PERIOD_WORDS: Record<Period, string> = {
  day: 'by day',
  week: 'by week',
  month: 'by month',
  quarter: 'by quarter',
  half: 'by half-year',
  year: 'by year',
  weekday: 'by weekday',
};

/** `Sailed on by quarter` */
export function groupWords(key: GroupKey, names: Names): string {
  const name = nameOf(names, key.column);
  if (key.bands) return `${name} in bands`;
  return key.period ? `${name} ${PERIOD_WORDS[key.period]}` : name;
}

/** `bands from 0, 1, 5 and 10, a value on an edge in the one below` */
export const bandsWords = (bands: Bands): string =>
  bandsCut(bands) + (bands.edgeIn === 'below' ? ', a value on an edge in the band below' : '');

function bandsCut(bands: Bands): string {
  switch (bands.by) {
    case 'width':
      return `bands ${givenNumber(bands.width)} wide${bands.origin ? ` from ${givenNumber(bands.origin)}` : ''}`;
    case 'number':
      return `${bands.round ? 'about ' : ''}${bands.count} bands of one width`;
    case 'equalCount':
      return `${bands.count} bands of about as many records each`;
    case 'edges':
      return `bands from ${edgesWords(bands.edges)}`;
    case 'table':
      if (bands.name !== undefined) return `the bands “${bands.name}”`;
      if (isRow(bands.bands)) return rowWords(bands.bands);
      return bands.bands.length === 1
        ? '1 band of a table'
        : `${bands.bands.length} bands of a table`;
    case 'list':
      return `the bands of ${bands.list}`;
  }
}

/** Whether bands follow one another edge to edge, two at least, without names of their own. */
const isRow = (bands: readonly Band[]): boolean =>
  bands.length > 1 &&
  bands.every(
    ({ label, from, fromIn, toIn }, k) =>
      label === undefined &&
      fromIn === undefined &&
      toIn === undefined &&
      (k === 0 ? true : from !== null && from === bands[k - 1].to),
  );

/** `bands from 0, 5 and 10, open above` */
function rowWords(bands: readonly Band[]): string {
  const edges = [bands[0].from, ...bands.map(({ to }) => to)].filter((edge) => edge !== null);
  const open = [
    ...(bands[0].from === null ? ['below'] : []),
    ...(bands[bands.length - 1].to === null ? ['above'] : []),
  ];
  return `bands from ${edgesWords(edges)}${open.length ? `, open ${open.join(' and ')}` : ''}`;
}

/** `0, 1, 5 and 10`; a long run is cut short. */
function edgesWords(edges: readonly number[]): string {
  const texts = edges.map((edge) => givenNumber(edge));
  return texts.length <= 9
    ? listed(texts)
    : `${texts.slice(0, 4).join(', ')} … to ${texts[texts.length - 1]}`;
}

/** `Fares taken, highest first` */
export function sortWords(key: SortKey, names: Names): string {
  const name = nameOf(names, key.column);
  if (key.hand?.length) return `${name}, by hand`;
  return key.descending ? `${name}, highest first` : name;
}

/** `sum of Boarded` */
export function measurePhrase(measure: Measure, names: Names): string {
  const words = measureWords(measure);
  if (ofRecords(measure.kind) || measure.column === undefined) return words;
  const of = `${words} of ${nameOf(names, measure.column)}`;
  switch (needsOther(measure.kind)) {
    case 'weights':
      return `${of} with weights ${nameOf(names, measure.other)}`;
    case 'sum':
      return `sum of ${nameOf(names, measure.column)} ${measure.kind === 'ratio' ? '/' : '−'} sum of ${nameOf(names, measure.other)}`;
    case 'shown':
      return `${nameOf(names, measure.other)} at the ${measure.kind === 'atMin' ? 'lowest' : 'highest'} ${nameOf(names, measure.column)}`;
    case null:
      return of;
  }
}

/** What a measure says under the name of its column: `mean`, `sum / sum of Price`, `Depot at the highest`. */
export function measureBelow(measure: Measure, names: Names): string {
  switch (needsOther(measure.kind)) {
    case 'sum':
      return `sum ${measure.kind === 'ratio' ? '/' : '−'} sum of ${nameOf(names, measure.other)}`;
    case 'shown':
      return `${nameOf(names, measure.other)} at the ${measure.kind === 'atMin' ? 'lowest' : 'highest'}`;
    default:
      return measureWords(measure);
  }
}

/** `in order of Fares taken, highest first` */
export const orderWords = (sort: readonly SortKey[], names: Names): string =>
  sort.length
    ? `in order of ${sort.map((key) => sortWords(key, names)).join(', then ')}`
    : 'in the order read';

/** Whose records, as one chooses them. */
export const SCOPE_WORDS: Readonly<Record<ScopeName, string>> = {
  counted: 'the counted records',
  narrowed: 'the records before setting aside',
  all: 'all records',
};

/** Whose records, where they are not simply those counted. */
export const scopeWords = (scope: ScopeName): string =>
  scope === 'all' ? ' (all records)' : scope === 'narrowed' ? ' (before setting aside)' : '';
