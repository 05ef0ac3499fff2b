import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { finish } from '$lib/core/task/task';
import { wholeInput } from '$lib/core/tally/input/input';
import { Faults } from '$lib/core/tally/spec/fault';
import { checkFooting } from '$lib/core/tally/trust/checkFooting';
import { computeTally, kindOf } from '$lib/core/tally/kind/kinds';
import { Tally } from '$lib/core/tally/spec/specs';
import { demoPath, readDemo } from '../support/demo';

const trays = z
  .record(z.string(), z.array(z.object({ name: z.string(), tally: Tally })))
  .parse(
    JSON.parse(readFileSync(path.join(path.dirname(demoPath('sailings')), 'trays.json'), 'utf8')),
  );

describe('the trays of the demo', () => {
  for (const [file, tallies] of Object.entries(trays))
    it(`${file}: every tally fits its list, comes to figures and foots`, () => {
      const { table } = readDemo(file.replace('.csv', '')).reading;
      const input = wholeInput(table, file);
      for (const { name, tally } of tallies) {
        const faults = new Faults(table.columns);
        kindOf(tally).check(faults, 'tally');
        expect(faults.found, name).toEqual([]);
        const answer = finish(computeTally(input, tally));
        expect(answer.tables[0].length, name).toBeGreaterThan(0);
        expect(finish(checkFooting(input, answer)).foots, name).toBe(true);
      }
    });

  it('the sailings come with eight besides the ledger, the other lists with two or three', () => {
    expect(trays['sailings.csv'].length).toBe(8);
    for (const [file, tallies] of Object.entries(trays))
      if (file !== 'sailings.csv') expect([2, 3], file).toContain(tallies.length);
  });
});
