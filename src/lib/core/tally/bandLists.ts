import type { Bands } from '../arrange/bands';
import { fullCell } from '../table/cell';
import { isMissing, isText, type ScalarColumn } from '../table/column';
import { columnOf, type Table } from '../table/table';
import { Tally } from './kinds';

type BandList = Extract<Bands, { by: 'list' }>;

/** A band table that cannot be taken from its list. */
export class BadBandList extends Error {
  override name = 'BadBandList';
}

/**
 * A tally with every band table that is a list of its own written out as bands.
 * @throws BadBandList, UnknownColumn
 */
export function withBandLists(tally: Tally, others: ReadonlyMap<string, Table>): Tally {
  let found = false;
  const walk = (part: unknown): unknown => {
    if (Array.isArray(part)) return part.map(walk);
    if (typeof part !== 'object' || part === null) return part;
    if (isBandList(part)) {
      found = true;
      return bandsOf(part, others);
    }
    return Object.fromEntries(Object.entries(part).map(([key, value]) => [key, walk(value)]));
  };
  const written = walk(tally);
  return found ? Tally.parse(written) : tally;
}

const isBandList = (part: object): part is BandList =>
  'by' in part && part.by === 'list' && 'list' in part && 'from' in part;

function bandsOf(spec: BandList, others: ReadonlyMap<string, Table>): Bands {
  const list = others.get(spec.list);
  if (!list) throw new BadBandList(`There is no list “${spec.list}”.`);
  const edge = (ref: string): ScalarColumn => {
    const column = columnOf(list, ref);
    if (isText(column) || column.type !== 'number')
      throw new BadBandList(`“${column.name}” of “${spec.list}” holds no numbers to be edges.`);
    return column;
  };
  const [from, to] = [edge(spec.from), edge(spec.to)];
  const label = spec.label === undefined ? null : columnOf(list, spec.label);
  if (list.length === 0) throw new BadBandList(`The band table “${spec.list}” has no records.`);
  const at = ({ values }: ScalarColumn, i: number): number | null =>
    Number.isNaN(values[i]) ? null : values[i];
  return {
    by: 'table',
    bands: Array.from({ length: list.length }, (_, i) => ({
      from: at(from, i),
      to: at(to, i),
      ...(label && !isMissing(label, i) && { label: fullCell(label, i) }),
    })),
  };
}
