import type { Task } from '../../task/task';
import { isText, type Column } from '../../table/column';
import type { Table } from '../../table/table';
import { USUAL_CALENDAR } from '../../table/period';
import { standsFor } from '../series/placeInPeriod';
import { addsUp } from './addsUp';
import type { ColumnFact } from './guess';

/** Distinct values are counted up to here. */
const MANY = 500;

/** What first guesses look at of each column: one pass over a table, with a pause after each column. */
export function* columnFacts(table: Table): Task<ColumnFact[]> {
  const out: ColumnFact[] = [];
  for (const column of table.columns) {
    out.push(factOf(column));
    yield undefined;
  }
  return out;
}

function factOf(column: Column): ColumnFact {
  const { id, name, type, unit } = column;
  const about = { id, name, type, unit };
  if (isText(column)) {
    let values = 0;
    for (let i = 0; i < column.codes.length; i++) if (column.codes[i] >= 0) values++;
    return {
      ...about,
      ...{ values, distinct: column.dictionary.length, least: 0, most: 0 },
      ...{ adds: false, rhythm: 'day' },
    };
  }
  const seen = new Set<number>();
  let values = 0;
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < column.values.length; i++) {
    const v = column.values[i];
    if (v !== v) continue;
    values++;
    if (v < least) least = v;
    if (v > most) most = v;
    if (seen.size < MANY) seen.add(v);
  }
  const adds = values > 0 && addsUp(column);
  const dated = type === 'date' || type === 'datetime';
  const rhythm = dated ? standsFor(column, USUAL_CALENDAR) : 'day';
  return { ...about, values, distinct: seen.size, least, most, adds, rhythm };
}
