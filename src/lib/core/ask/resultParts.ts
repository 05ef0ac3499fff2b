import { z } from 'zod';
import { inStretches, type Task } from '../task/task';
import { FigureRow } from '../tally/answer/result';
import { AskResult, talliesOf } from './result';

/** Rows of one part: a millisecond or so of writing, whatever their width. */
const ROWS = 256;

/** Some rows of one table, by the place of its tally among all of the answer. */
const RowsPart = z.strictObject({ tally: z.int(), table: z.int(), rows: z.array(FigureRow) });

const encoder = new TextEncoder();

/**
 * An answer on its way to where a file is made of it, as bytes of JSON: first all but its rows, then
 * these some hundred at a time. Whoever hands the bytes on in between never holds what they mean, and no
 * text is longer than a text can be.
 */
export function* toParts(result: AskResult): Task<Uint8Array[]> {
  const { tallies, also } = result;
  const bare: AskResult = {
    ...result,
    tallies: withoutRows(tallies),
    also: also.map((of) => ({ ...of, tallies: withoutRows(of.tallies) })),
  };
  const parts = [encoder.encode(JSON.stringify(bare))];
  for (const [k, tally] of talliesOf(result).entries())
    for (const [t, { rows }] of tally.tables.entries())
      yield* inStretches(
        rows.length,
        (from, to) => {
          const part = { tally: k, table: t, rows: rows.slice(from, to) };
          parts.push(encoder.encode(JSON.stringify(part)));
        },
        ROWS,
      );
  return parts;
}

const withoutRows = (tallies: AskResult['tallies']): AskResult['tallies'] =>
  tallies.map((tally) => ({
    ...tally,
    tables: tally.tables.map((table) => ({ ...table, rows: [] })),
  }));

/** The answer that the parts were made of. @throws where they are not whole */
export function fromParts([head, ...parts]: readonly Uint8Array[]): AskResult {
  const decoder = new TextDecoder();
  const result = AskResult.parse(JSON.parse(decoder.decode(head)));
  const tallies = talliesOf(result);
  for (const part of parts) {
    const { tally, table, rows } = RowsPart.parse(JSON.parse(decoder.decode(part)));
    const into = tallies[tally].tables[table].rows;
    for (const row of rows) into.push(row);
  }
  return result;
}
