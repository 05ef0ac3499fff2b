import type { ScalarColumn } from '../table/column';
import { usualFormat } from '../table/cell';
import type { Table } from '../table/table';
import { VERSION } from '../ask/version';
import type { Measure } from '../measure/measure';
import { looksLikeYears } from '../table/years';
import { addsUp } from '../tally/wish/addsUp';
import type { Bench } from './document';
import { statedTotals } from './statedTotals';

/**
 * The first bench of a list: all records in the order read, sums at the foot.
 * @param setAside numbers of the records the analyst agreed to set aside at intake
 * @param stated whether what the file states as its grand total is kept as known totals
 */
export function newBench(
  table: Table,
  reading: number,
  setAside: readonly number[] = [],
  stated = false,
): Bench {
  const sums = table.columns.filter(addsUp);
  const measures = sums.slice(0, 12).map((c): Measure => ({ kind: 'sum', column: c.id }));
  const years = table.columns
    .filter((c): c is ScalarColumn => c.type === 'number')
    .filter(looksLikeYears);
  return {
    version: VERSION,
    reading,
    lists: {},
    corrections: [],
    reshape: [],
    joins: [],
    computed: [],
    sort: [],
    ladder: { rungs: [], setAside: { records: [...setAside], values: [], kept: [] } },
    scopes: [],
    bands: [],
    known: stated ? statedTotals(table, setAside, measures) : [],
    cited: [],
    report: { title: '', intro: '', paper: 'a4', lying: false },
    lead: (sums.find((c) => /[£$€¥]/.test(c.unit)) ?? sums[0])?.id ?? null,
    tray: [
      {
        id: 'ledger',
        tally: {
          kind: 'ledger',
          scope: 'counted',
          groups: [],
          sort: [],
          measures,
          records: false,
        },
        view: { showDown: 1, turned: [], totals: 'below', columns: [], fixed: 0 },
        note: '',
      },
    ],
    open: 'ledger',
    orders: {},
    formats: Object.fromEntries(years.map((c) => [c.id, usualFormat(c)])),
  };
}
