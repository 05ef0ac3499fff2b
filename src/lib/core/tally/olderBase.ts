import { climb } from '../scope/ladder';
import type { Table } from '../table/table';
import type { Base } from './base';
import { TallyMemo } from './memo';

/** The same ladder on the older reading; records set aside by number belong to the newer one. */
export function olderBase(base: Base, older: Table): Base {
  const ladder = { ...base.ladder, setAside: { ...base.ladder.setAside, records: [], kept: [] } };
  const { all, narrowed, counted: kept } = climb(older, ladder);
  return {
    ...base,
    table: older,
    all,
    narrowed,
    counted: kept,
    order: Int32Array.from({ length: older.length }, (_, i) => i),
    sort: [],
    memo: new TallyMemo(),
  };
}
