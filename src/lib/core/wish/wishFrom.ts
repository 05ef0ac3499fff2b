import { MEASURES, type Measure, type MeasureKind } from '../measure/measure';
import { CALENDAR_PERIODS } from '../table/period';
import type { Wish } from '../tally/wish/wish';
import { partsOf, type Part, type PartOf } from './phrase';
import { isMeasured, isNumber, type Placed } from './placed';

/**
 * What the parts of a wish ask for, as first guesses take it: figures and groups by the columns that are named, everything
 * else as it is said.
 * @param loose measures behind the last column that could be theirs
 * @param perRecord whether figures are asked for each record
 */
export function wishFrom(
  parts: readonly Part[],
  placed: readonly Placed[],
  loose: readonly PartOf<'measure'>[],
  perRecord: boolean,
): Wish {
  const has = (is: Part['is']): boolean => parts.some((part) => part.is === is);
  const [what, by, within, each] = (['what', 'by', 'within', 'each'] as const).map((role) =>
    placed.filter((p) => p.role === role),
  );
  const order =
    partsOf(parts, 'count').at(0)?.of ?? partsOf(parts, 'order').at(0)?.of ?? whichEnd(parts);
  const best = has('best') || (has('which') && order === 'highest');
  const subject = what.find((p) => isNumber(p) || isMeasured(p));
  // “rank vessels by fares”: the number is what they are ranked by, the vessels are the groups.
  const ranked = subject ? undefined : [...by, ...each].find(isNumber);
  const number = subject ?? ranked;
  const inBands = has('bands') || has('width') || has('edges') || has('table');
  const divisor = placed.find((p) => p !== number && isNumber(p) && (p.per || p.op !== null));
  const weights =
    number?.kinds.some(({ kind }) => kind === 'weightedMean') === true
      ? placed.find((p) => p !== number && isNumber(p))
      : undefined;
  const other = number ? (divisor ?? weights) : undefined;
  const figured = new Set([number, other, ...what.filter((p) => isNumber(p) || isMeasured(p))]);
  // “fares by vessel for each route”: the routes are around the vessels.
  const groups = [...within, ...each, ...what, ...by].filter((p) => !figured.has(p));
  // “fares in bands by route”: the bands are groups within the routes, and records are counted.
  if (inBands && number && groups.length > 0 && what.filter(isNumber).length < 2) {
    const rest = parts.map((part): Part => (part.is === 'bands' ? { is: 'small' } : part));
    const alone = placed.filter((p) => p !== number);
    const counted = wishFrom(rest, alone, COUNT, false);
    return { ...counted, by: [...(counted.by ?? []), number.column.id].slice(0, 6) };
  }
  const measures = measuresIn(what, loose, other);
  const named = (kinds: Placed['kinds']): boolean => kinds.some(({ kind }) => kind !== 'records');
  const numbers = what.filter((p) => isNumber(p) && p !== other);
  const plain = numbers.filter((p) => !named(p.kinds) && !(p === numbers.at(-1) && named(loose)));
  const counts = parts.some((part) => part.is === 'measure' && part.kind === 'records');
  const measured = number?.kinds.find(({ kind }) => kind !== 'records') ?? loose.at(0);
  // “fares per sailing” is what a record comes to.
  const one = measured?.kind ?? (perRecord && number ? 'mean' : undefined);
  const measure = measureOf(one, other, counts && !number);
  const grouped = groups.length > 0 || has('period');
  const records =
    number === undefined && measure === undefined && !has('often') && (has('records') || grouped);
  return {
    ...(number && { column: number.column.id }),
    ...(measure ? { measure } : records && { measure: 'records' as const }),
    ...(other && { per: other.column.id, ...(other.op === 'difference' && { less: true }) }),
    by: groups.slice(0, 6).map(({ column }) => column.id),
    ...(within.length > 0 && { within: Math.min(within.length, 6) }),
    ...((has('where') || measures.length > 1) && { measures }),
    ...(measures.length > 1 &&
      plain.length > 0 && { plain: plain.map(({ column }) => column.id).slice(0, 20) }),
    ...(best && groups.length > 1 && { best }),
    ...(order && { order }),
    ...asSaid(parts),
  };
}

/** What a wish says besides its figures and its groups. */
function asSaid(parts: readonly Part[]): Wish {
  const of = <K extends Part['is']>(is: K): PartOf<K>[] => partsOf(parts, is);
  const has = (is: Part['is']): boolean => parts.some((part) => part.is === is);
  const periods = CALENDAR_PERIODS.filter((period) =>
    of('period').some((p) => p.period === period),
  );
  const beside = CALENDAR_PERIODS.find((period) => period === of('beside').at(0)?.period);
  const percents = [
    ...of('percent').map(({ value }) => value),
    ...of('measure').flatMap(({ percent }) => percent ?? []),
  ];
  const stands = of('stands').map(({ value }) => value);
  const conditions = of('where').map(({ condition }) => condition);
  return {
    ...(periods.length > 0 && { period: periods[0] }),
    ...(periods.length > 1 && { periods: [...periods].reverse() }),
    ...(of('period').some(({ period }) => period === 'weekday') && { weekday: true }),
    ...(has('yearStart') && { yearStartsIn: of('yearStart')[0].month }),
    ...(has('count') && { first: of('count')[0].count }),
    ...(has('ahead') && { ahead: of('ahead')[0].count }),
    ...(has('ends') && { from: of('ends')[0].from, to: of('ends')[0].to }),
    ...(percents.length > 0 && { percents: percents.slice(0, 20) }),
    ...(stands.length > 0 && { stands: stands.slice(0, 20) }),
    ...(conditions.length > 0 && {
      conditions: conditions.slice(0, 20),
      ...(has('both') && { both: true }),
      ...(has('neither') && { neither: true }),
    }),
    ...(has('often') && { often: true }),
    ...(has('bands') && { bands: true }),
    ...(has('width') && { width: of('width')[0].width }),
    ...(has('edges') && { edges: [...of('edges')[0].edges] }),
    ...(has('table') && { table: of('table')[0].table }),
    ...(has('deviation') && { withDeviation: true }),
    ...(has('toDate') && { toDate: true }),
    ...(has('against') && { earlier: of('against')[0].what }),
    ...(beside && { beside }),
  };
}

/** “which workshop has the highest charge”: that one first. */
function whichEnd(parts: readonly Part[]): 'highest' | 'lowest' | undefined {
  if (!parts.some(({ is }) => is === 'which')) return undefined;
  const kinds = parts.flatMap((part) => (part.is === 'measure' ? [part.kind] : []));
  return kinds.includes('max') ? 'highest' : kinds.includes('min') ? 'lowest' : undefined;
}

const COUNT = [{ is: 'measure', kind: 'records' }] as const;

/** The one measure that was named, in as far as it is of one column. */
function measureOf(
  kind: MeasureKind | undefined,
  other: Placed | undefined,
  counts: boolean,
): MeasureKind | undefined {
  if (other) return kind === 'weightedMean' ? kind : undefined;
  return kind ?? (counts ? 'records' : undefined);
}

/**
 * `count, fares and mean delay`: each column with the measures named before it, the last one with those
 * behind it too; a sum where none is. Records are counted where that is said, or nothing else is.
 */
function measuresIn(
  what: readonly Placed[],
  loose: readonly { kind: MeasureKind; percent?: number }[],
  other: Placed | undefined,
): Measure[] {
  const of = what.filter((p) => p !== other && (isNumber(p) || isMeasured(p)));
  const out: Measure[] = [];
  let counts = loose.some(({ kind }) => kind === 'records');
  of.forEach((p, k) => {
    const kinds = [...p.kinds, ...(k === of.length - 1 ? loose : [])];
    if (kinds.some(({ kind }) => kind === 'records')) counts = true;
    if (counts && !out.some(({ kind }) => kind === 'records')) out.push({ kind: 'records' });
    const own = kinds.filter(({ kind }) => kind !== 'records');
    for (const { kind, percent } of own.length > 0
      ? own
      : [{ kind: 'sum' as const, percent: undefined }])
      if (MEASURES[kind].types.includes(p.column.type))
        out.push({
          kind,
          column: p.column.id,
          ...(kind === 'percentile' && { percent: percent ?? 90 }),
        });
  });
  if (out.length === 0) out.push({ kind: 'records' });
  return out.slice(0, 20);
}
