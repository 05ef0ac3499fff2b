import { examine } from '$lib/core/read/examine';
import { recordNumber } from '$lib/core/table/recordNumber';
import { readJson, readList, readRecipe } from './input';
import { write } from './output';

export interface CheckOptions {
  readonly data: string;
  readonly recipe?: string;
  readonly out?: string;
}

/** Writes how a file is read, and everything doubtful in it. */
export function check(options: CheckOptions): void {
  const given =
    options.recipe === undefined ? null : readRecipe(readJson(options.recipe, 'recipe'));
  const { recipe, reading } = readList(options.data, given);
  const { doubts, totals } = examine(recipe, reading);
  const { table } = reading;
  const report = {
    records: table.length,
    recipe,
    doubts,
    /** Numbers of the records that look like totals, for setAside.records of an ask. */
    totals: totals.map((t) => recordNumber(t.record)),
  };
  write(`${JSON.stringify(report, null, 2)}\n`, options.out);
}
