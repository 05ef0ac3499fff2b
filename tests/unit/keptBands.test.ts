import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, it } from 'vitest';
import { keepBands } from '$lib/core/bench/bandEdits';
import { newBench } from '$lib/core/bench/newBench';
import { scalarColumn } from '$lib/core/table/column';
import { migrate, openDatabase } from '$lib/server/storage/database';
import { bandsElsewhere } from '$lib/server/storage/keptBands';

it('bands of other benches are told with where they are kept, the newest first, equal ones once', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'tally-loft-bands-')), 'db'));
  try {
    await migrate(db);
    const doc = newBench({ length: 1, columns: [scalarColumn('n', 'number', [1])] }, 1);
    const two = [
      { from: 0, to: 10 },
      { from: 10, to: null },
    ];
    const benches = [
      ['Plain', doc, '2026-01-01'],
      ['Old', keepBands(doc, 'Delays', two), '2026-01-02'],
      ['New', keepBands(keepBands(doc, 'Delays', two), 'Fares', two.slice(1)), '2026-01-03'],
      ['Own', keepBands(doc, 'Mine', two), '2026-01-04'],
    ] as const;
    await db.insertInto('lists').values({ id: 1, name: 'Sailings', created_at: '2026' }).execute();
    for (const [k, [name, bench, at]] of benches.entries())
      await db
        .insertInto('benches')
        .values({
          id: k + 1,
          list_id: 1,
          name,
          revision: 1,
          doc: JSON.stringify(bench),
          saved_at: at,
        })
        .execute();
    const found = await bandsElsewhere(db, 4);
    expect(found.map(({ name, bench, list }) => [name, bench, list])).toEqual([
      ['Delays', 'New', 'Sailings'],
      ['Fares', 'New', 'Sailings'],
    ]);
    expect(found[0].bands).toEqual(two);
    expect((await bandsElsewhere(db, 3)).map(({ name, bench }) => [name, bench])).toEqual([
      ['Mine', 'Own'],
      ['Delays', 'Old'],
    ]);
  } finally {
    await db.destroy();
  }
});
