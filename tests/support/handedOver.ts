import { fromParts } from '$lib/core/ask/resultParts';
import { finish } from '$lib/core/task/task';
import { tableOfChunks } from '$lib/core/table/arrowRead';
import { fullCell } from '$lib/core/table/cell';
import type { Values } from '$lib/core/write/dialect';
import type { Written } from '$lib/core/write/grid';
import { recordsDelimited } from '$lib/core/write/recordsDelimited';
import { resultsAsDelimited } from '$lib/core/write/resultDelimited';
import { orderRead } from '$lib/core/table/recordOrder';
import type { OpenBench } from './bench';

/** A tally of a bench that is shown as it is saved as delimited text. */
export function csvOf(bench: OpenBench, values: Values, tally = 'ledger'): string {
  const { parts } = bench.ask('asked', { tallies: [tally], values, report: false });
  return resultsAsDelimited(fromParts(parts), values).text;
}

/** The counted records of a bench that is shown as they are saved as delimited text. */
export function recordsCsvOf(bench: OpenBench): Written & { rows: number } {
  const { records, parts } = bench.ask('countedRecords', {});
  const table = tableOfChunks(parts, records);
  return finish(recordsDelimited(table, orderRead(records), fullCell));
}
