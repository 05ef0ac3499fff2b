import type { Recipe } from '$lib/core/read/recipe';
import { TableAssembler } from '$lib/core/table/arrowRead';
import type { Table } from '$lib/core/table/table';
import type { Database } from '../storage/database';
import { findChunk, findReading } from '../storage/readings';

/** The table of a stored reading. */
export async function loadTable(
  db: Database,
  reading: number,
): Promise<{ table: Table; recipe: Recipe; listName: string }> {
  const facts = await findReading(db, reading);
  if (!facts) throw new Error(`There is no reading ${reading}.`);
  const assembler = new TableAssembler(facts.records);
  for (let n = 0; n < facts.chunks; n++) {
    const data = await findChunk(db, reading, n);
    if (data) assembler.push(data);
  }
  return { table: assembler.finish(), recipe: facts.recipe, listName: facts.listName };
}
