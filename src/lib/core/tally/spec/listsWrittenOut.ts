import { showCount } from '../../table/format';
import { BadBandList, BadBands } from '../../errors';
import type { Bands } from '../../arrange/bands';
import { settled, MOST_BANDS } from '../../arrange/bands';
import { columnFor } from '../../expression/columnFor';
import { conditionWithListed } from '../../selection/listed';
import { fullCell } from '../../table/cell';
import { isMissing, isText, type ScalarColumn } from '../../table/column';
import type { Table } from '../../table/table';
import { kindOf } from '../kind/kinds';
import type { Tally } from './specs';
import type { SpecVisitor } from './visit';

type BandList = Extract<Bands, { by: 'list' }>;

/**
 * A tally with what it takes from other lists written out: the values of conditions, and band tables.
 * @throws BadBandList, BadCondition, UnknownColumn
 */
export function resolveLists(tally: Tally, others: ReadonlyMap<string, Table>): Tally {
  const visitor: SpecVisitor = {
    key: (key) => (key.bands?.by === 'list' ? { ...key, bands: bandsOf(key.bands, others) } : key),
    condition: (condition) => conditionWithListed(condition, others),
    get ofGroups() {
      return visitor;
    },
  };
  return kindOf(tally).visit(visitor, '');
}

function bandsOf(spec: BandList, others: ReadonlyMap<string, Table>): Bands {
  const list = others.get(spec.list);
  if (!list) throw new BadBandList(`There is no list “${spec.list}”.`);
  const edge = (ref: string): ScalarColumn => {
    const column = columnFor(list, ref);
    if (isText(column) || column.type !== 'number')
      throw new BadBandList(`“${column.name}” of “${spec.list}” holds no numbers to be edges.`);
    return column;
  };
  const [from, to] = [edge(spec.from), edge(spec.to)];
  const label = spec.label === undefined ? null : columnFor(list, spec.label);
  if (list.length === 0) throw new BadBandList(`The band table “${spec.list}” has no records.`);
  if (list.length > MOST_BANDS)
    throw new BadBandList(
      `“${spec.list}” has ${showCount(list.length)} records; a band table has at most ${showCount(MOST_BANDS)}.`,
    );
  const sides = { fromIn: yesNo(list, spec, spec.fromIn), toIn: yesNo(list, spec, spec.toIn) };
  const at = ({ values }: ScalarColumn, i: number): number | null =>
    Number.isNaN(values[i]) ? null : values[i];
  const bands = Array.from({ length: list.length }, (_, i) => ({
    from: at(from, i),
    to: at(to, i),
    ...(label && !isMissing(label, i) && { label: fullCell(label, i) }),
    ...(sides.fromIn && !isMissing(sides.fromIn, i) && { fromIn: sides.fromIn.values[i] === 1 }),
    ...(sides.toIn && !isMissing(sides.toIn, i) && { toIn: sides.toIn.values[i] === 1 }),
  }));
  bands.forEach((band, i) => checkRecord(band, i, spec.list));
  return { by: 'table', bands, ...(spec.edgeIn && { edgeIn: spec.edgeIn }) };
}

/** A column that says whether an edge is in its band; null where none is named. */
function yesNo(list: Table, spec: BandList, ref: string | undefined): ScalarColumn | null {
  if (ref === undefined) return null;
  const column = columnFor(list, ref);
  if (isText(column) || column.type !== 'yesno')
    throw new BadBandList(
      `“${column.name}” of “${spec.list}” does not say yes or no to an edge being in its band.`,
    );
  return column;
}

/** Edges that are turned round are told with the record they stand in. */
function checkRecord(band: Parameters<typeof settled>[0], i: number, list: string): void {
  try {
    settled(band, { first: false, last: false });
  } catch (error) {
    if (!(error instanceof BadBands)) throw error;
    throw new BadBandList(`Record ${i + 1} of “${list}”: ${error.message}`);
  }
}
