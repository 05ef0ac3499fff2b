import { examine } from '$lib/core/read/examine';
import { recordNumber } from '$lib/core/table/recordNumber';
import { readList } from './input';
import { write } from './output';
import { readAs, type ReadOptions } from './readAs';

export interface CheckOptions extends ReadOptions {
  readonly data: string;
  readonly out?: string;
}

/** Writes how a file is read, and everything doubtful in it. */
export async function check(options: CheckOptions): Promise<void> {
  const {
    recipe,
    reading,
    leftOut,
    doubts: ofFile,
    marks,
  } = await readList(options.data, readAs(options));
  const { doubts, totals } = examine(recipe, reading, marks);
  const { table } = reading;
  const report = {
    records: table.length,
    recipe,
    /** Columns of the file that the recipe does not take. */
    leftOut,
    doubts: [...doubts, ...ofFile],
    /** Numbers of the records that look like totals, for setAside.records of an ask. */
    totals: totals.map((t) => recordNumber(t.record)),
  };
  write(`${JSON.stringify(report, null, 2)}\n`, options.out);
}
