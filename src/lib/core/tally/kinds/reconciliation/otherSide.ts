import { TallyRefused } from '../../../errors';
import type { GroupKey } from '../../../arrange/groupKey';
import { columnFor } from '../../../expression/columnFor';
import { MEASURES, type Measure } from '../../../measure/measure';
import { fullBitset, remove, type Bitset } from '../../../table/bitset';
import { TYPE_PHRASES, type Column } from '../../../table/column';
import { listed } from '../../../table/format';
import { recordPlace } from '../../../table/recordNumber';
import { findColumn, type Table } from '../../../table/table';
import { wholeInput, type TallyInput } from '../../input/input';
import { Faults } from '../../spec/fault';
import type { ReconciliationSpec } from './spec';

/** What the other list is asked: the same question of its own columns. */
export interface OtherSide {
  readonly input: TallyInput;
  readonly selection: Bitset;
  readonly measure: Measure;
  readonly by: readonly GroupKey[];
}

/**
 * The other list with the measure and the keys as its own columns say them. Records that look
 * like totals of others stay out.
 * @throws TallyRefused where the list or one of the columns is not there, or cannot meet
 */
export function otherSideOf(input: TallyInput, spec: ReconciliationSpec): OtherSide {
  const table = input.others.get(spec.with);
  if (!table)
    throw new TallyRefused(
      spec.with ? `The list “${spec.with}” is not at hand.` : 'Choose the list to reconcile with.',
    );
  const other = wholeInput(table, spec.with);
  const by = spec.by.map((key, k) => keyThere(input.table, table, key, spec.meets?.[k], spec.with));
  const measure = spec.against ?? measureThere(input.table, table, spec.measure, spec.with);
  const faults = new Faults(table.columns);
  faults.measure('against', measure, []);
  checkNumber(measure, faults, 'against');
  const [fault] = faults.found;
  if (fault) throw new TallyRefused(`In “${spec.with}”: ${fault.message} ${fault.remedy}`);
  const aside = input.totalsAside?.get(spec.with) ?? [];
  if (aside.length === 0) return { input: other, selection: other.all, measure, by };
  const selection = fullBitset(table.length);
  for (const number of aside) remove(selection, recordPlace(number));
  return { input: other, selection, measure, by };
}

/** Names a measure whose figures are texts or dates: they have no difference. */
export function checkNumber(measure: Measure, faults: Faults, path: string): void {
  const { figure, words } = MEASURES[measure.kind];
  const ref = figure === 'column' ? measure.column : figure === 'other' ? measure.other : undefined;
  const shown = ref === undefined ? null : findColumn(faults.columns, ref);
  if (shown && shown.type !== 'number')
    faults.add(
      `${path}.kind`,
      `The ${words} of “${shown.name}” is ${TYPE_PHRASES[shown.type]}, and no number that could be set against another.`,
      'Ask for a sum, a count, a mean or another number.',
    );
}

/** The column of the other list that has the name of one of this list. @throws TallyRefused */
function sameName(here: Table, there: Table, ref: string, list: string): Column {
  const { name } = columnFor(here, ref);
  const found = findColumn(there.columns, name);
  if (found) return found;
  const names = there.columns.slice(0, 12).map((c) => `“${c.name}”`);
  throw new TallyRefused(
    `“${list}” has no column “${name}”. Choose the one that stands against it: ${listed(names, 'or')}${there.columns.length > 12 ? ', among others' : ''}.`,
  );
}

function measureThere(here: Table, there: Table, measure: Measure, list: string): Measure {
  const { column, other, ...rest } = measure;
  return {
    ...rest,
    ...(column !== undefined && { column: sameName(here, there, column, list).id }),
    ...(other !== undefined && { other: sameName(here, there, other, list).id }),
  };
}

function keyThere(
  here: Table,
  there: Table,
  key: GroupKey,
  ref: string | undefined,
  list: string,
): GroupKey {
  const own = columnFor(here, key.column);
  if (key.bands && key.bands.by !== 'edges' && key.bands.by !== 'table')
    throw new TallyRefused(
      `Bands of “${own.name}” that are found from the values differ between the two lists. Give them edges of their own.`,
    );
  const other =
    ref === undefined ? sameName(here, there, key.column, list) : columnIn(there, ref, list);
  const meet = key.period ? isDay(own) && isDay(other) : own.type === other.type;
  if (!meet)
    throw new TallyRefused(
      `“${other.name}” of “${list}” is ${TYPE_PHRASES[other.type]}, and “${own.name}” ${TYPE_PHRASES[own.type]}: their groups can never be the same. Choose another column, or change its type on the list's page.`,
    );
  return { ...key, column: other.id };
}

function columnIn(there: Table, ref: string, list: string): Column {
  const found = findColumn(there.columns, ref);
  if (!found) throw new TallyRefused(`“${list}” has no column “${ref}”.`);
  return found;
}

const isDay = ({ type }: Column): boolean => type === 'date' || type === 'datetime';
