import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Trouble } from '$lib/core/errors';
import { keysOfRow } from '$lib/core/tally/answer/answer';
import { answered } from '../../support/ask';
import { SPECS, table } from '../../support/generated';

/** The tables that a spec comes to; none where the list does not allow it. */
function tablesOf(spec: unknown): ReturnType<typeof answered>['tallies'][number]['tables'] {
  try {
    return answered(table, { tallies: [spec] }, { before: table }).tallies[0].tables;
  } catch (error) {
    if (error instanceof Trouble) return [];
    throw error;
  }
}

describe('the keys of rows and columns', () => {
  it.each(Object.entries(SPECS))(
    '%s: one for each label, and no two rows or columns have the same',
    (_, specs) => {
      let looked = 0;
      fc.assert(
        fc.property(specs, (spec) => {
          for (const { columns, labels, rows } of tablesOf(spec)) {
            looked++;
            expect(new Set(columns.map(({ key }) => key)).size).toBe(columns.length);
            const keys = rows.map((row) => JSON.stringify(keysOfRow(row, labels)));
            expect(keys.filter((key, n) => keys.indexOf(key) !== n)).toEqual([]);
            for (const row of rows.filter(({ kind }) => kind === 'group'))
              expect(keysOfRow(row, labels).length).toBeLessThanOrEqual(labels);
          }
        }),
        { numRuns: 40 },
      );
      expect(looked).toBeGreaterThan(10);
    },
  );
});
