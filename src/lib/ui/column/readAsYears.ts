import { z } from 'zod';
import type { BenchState } from '../bench/bench.svelte';

const Problem = z.object({ detail: z.string() });

/**
 * Reads a column of plain numbers as years: in a new reading of the same cells, to which the bench is brought. What
 * was changed here is saved first; the page is opened anew.
 * @returns why it cannot be done, where it cannot
 */
export async function readAsYears(bench: BenchState, column: string): Promise<string> {
  await bench.saver.settle();
  if (bench.saver.unsaved) return 'Your changes are not saved yet. Try again when they are.';
  const response = await fetch(`/api/lists/${bench.facts.listId}/columns`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      reading: bench.facts.currentReading,
      columns: [{ id: column, as: 'years' }],
    }),
  });
  if (!response.ok) {
    const problem = Problem.safeParse(await response.json().catch(() => null));
    return problem.success ? problem.data.detail : 'The server could not do this.';
  }
  location.reload();
  return '';
}
