import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { OpenedFile } from '$lib/core/read/opened';
import { DelimitedReader } from '$lib/core/read/delimited';
import { ColumnRecipe, DATE_ORDERS, Recipe } from '$lib/core/read/recipe';
import { layoutAtRefresh, matchRecipe } from '$lib/core/read/refresh';
import { settle } from '$lib/core/read/settle';
import { COLUMN_TYPES, GRAINS } from '$lib/core/table/column';
import { sameTable } from '$lib/core/table/sameTable';
import type { Table } from '$lib/core/table/table';

/** Stock of a yard, written as badly as it comes. */
const STOCK = [
  'Yard stock',
  'Bay;Crates;Put in;Weighed;Cost;Kept',
  'A;1.204;03/04/2024;5 t;100 CR;yes',
  'B;7;2024;12;1.250,5;no',
  'A;?;45301;n/a;-3;yes',
  'C;12,5;03/13/2024 10:30;7 t;9 DR;none',
  'Total;;;;;',
].join('\n');

const bytes = new TextEncoder().encode(STOCK);
const readBy = (recipe: Recipe) => {
  const reader = new DelimitedReader(recipe);
  reader.push(bytes, true);
  return reader.finish();
};

/** The list as it is read at its intake: every option of the recipe as it was set. */
function intake(recipe: Recipe): { recipe: Recipe; table: Table } {
  const steps = settle(recipe, new Set(recipe.columns.map(({ id }) => id)));
  for (let step = steps.next(); ; step = steps.next(readBy(step.value)))
    if (step.done) return { recipe: step.value.recipe, table: step.value.reading.table };
}

/** The same file at a refresh, as the page reads it. */
function refresh(list: Recipe) {
  const file = layoutAtRefresh(OpenedFile.delimited(bytes, true), list);
  const { recipe, differences } = matchRecipe(file, list);
  return { ...intake(recipe), differences };
}

const proposed = OpenedFile.delimited(bytes, true).propose();

describe('the recipe of a list', () => {
  it('has every option that can be set: refreshed with the same file, the list is the same', () => {
    const changed = fc.record(
      {
        name: fc.constantFrom('Bay', 'Lot', 'Mass', 'Price'),
        type: fc.constantFrom(...COLUMN_TYPES),
        unit: fc.constantFrom('', 't', 'kg', '£'),
        unitInCells: fc.boolean(),
        thousands: fc.constantFrom('', '.', ',', ' '),
        decimal: fc.constantFrom('.', ','),
        takenOff: fc.constantFrom('', 'CR', 'DR'),
        dateOrder: fc.constantFrom(...DATE_ORDERS),
        dayNumbers: fc.boolean(),
        grain: fc.constantFrom(...GRAINS),
        zone: fc.constantFrom('clock', 'utc'),
        blanks: fc.subarray(['?', 'n/a', 'none', 'Total']),
      },
      { requiredKeys: [] },
    );
    const columns = fc
      .shuffledSubarray(proposed.columns, { minLength: 1 })
      .chain((taken) =>
        fc.tuple(...taken.map((column) => changed.map((change) => ({ ...column, ...change })))),
      );
    const recipes = fc.record({
      columns,
      header: fc.boolean(),
      skip: fc.nat(2),
      units: fc.boolean(),
    });
    fc.assert(
      fc.property(recipes, ({ columns: chosen, header, skip, units }) => {
        // Under another layout the columns are found by their places; their names stay apart.
        const layout = {
          ...proposed,
          header,
          skipLines: skip,
          ...(units && header && { unitsBelow: true }),
        };
        const under = OpenedFile.delimited(bytes, true).under(layout);
        const own = chosen.flatMap((column, k) => {
          const there = under.columns.find(({ at }) => at === column.at);
          return there
            ? [ColumnRecipe.parse({ ...column, source: there.source, name: `${column.name} ${k}` })]
            : [];
        });
        if (own.length === 0) return;
        const list = intake(Recipe.parse({ ...under, columns: own }));
        const again = refresh(list.recipe);
        expect(again.differences.filter(({ kind }) => kind === 'missing')).toEqual([]);
        expect(sameTable(list.table, again.table)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('a file in another encoding is read by its own, also where the headings are the same', () => {
    const latin = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
    const list = OpenedFile.delimited(latin('Bay,Crates\nK\u00f8ge,1\n'), true).propose();
    expect(list.encoding).toBe('windows-1252');
    const next = new TextEncoder().encode('Bay,Crates\nK\u00f8ge,2\n');
    expect(layoutAtRefresh(OpenedFile.delimited(next, true), list).encoding).toBe('utf-8');
  });

  it('a file without the line of units that the last one had loses no record', () => {
    const read = (text: string, by?: Recipe) => {
      const own = new TextEncoder().encode(text);
      const file = OpenedFile.delimited(own, true);
      const recipe = by ? matchRecipe(layoutAtRefresh(file, by), by).recipe : file.propose();
      const reader = new DelimitedReader(recipe);
      reader.push(own, true);
      return { recipe, length: reader.finish().table.length };
    };
    const first = read('Bay,Mass\n,kg\nA,1\nB,2\n');
    expect([first.recipe.unitsBelow, first.length]).toEqual([true, 2]);
    expect(read('Bay,Mass\nA,1\nB,2\nC,3\n', first.recipe).length).toBe(3);
  });

  it('a file with other lines above its header is cut as it shows itself', () => {
    const list = intake(proposed).recipe;
    const longer = new TextEncoder().encode(`Printed in May\n\n${STOCK}`);
    const file = layoutAtRefresh(OpenedFile.delimited(longer, true), list);
    expect(file.skipLines).toBe(proposed.skipLines + 2);
    expect(matchRecipe(file, list).differences).toEqual([]);
  });
});
