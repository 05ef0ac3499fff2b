import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { DelimitedReader, proposeRecipe, reconsider } from './delimited';
import { examine } from './examine';

describe('try', () => {
  for (const f of ['sailings', 'vessels', 'kiosks', 'delay-bands', 'statement', 'monthly-fares'])
    it(f, () => {
      const bytes = readFileSync(`demo/${f}.csv`);
      const recipe = proposeRecipe(bytes.subarray(0, 1 << 18), bytes.length <= 1 << 18);
      const reader = new DelimitedReader(recipe);
      reader.push(bytes, true);
      const reading = reader.finish();
      console.log(f, reading.table.length, recipe.delimiter, recipe.columns.map((c) => `${c.name}:${c.type}:${c.unit}:${c.thousands}${c.decimal}:${c.dateOrder}`).join(' '));
      console.log(examine(recipe, reading).doubts.map((d) => d.says + (d.places[0] ? ` [${d.places.map(p=>p.record+1+':'+p.text).slice(0,3)}]` : '')).join('\n'));
      expect(reconsider(recipe, reading, new Set())).toBe(null);
    });
});
