import { z } from 'zod';
import type { Bench } from '../../core/bench/document';
import type { BenchFacts } from './facts';

const Kept = z.object({ revision: z.int() });
const Made = z.object({ id: z.int() });

/** Keeps the saved state of a bench, so that a link leads to it. @returns its revision; null where it was not kept */
export async function keepState(bench: number): Promise<number | null> {
  const response = await fetch(`/api/benches/${bench}/states`, { method: 'POST' });
  return response.ok ? Kept.parse(await response.json()).revision : null;
}

/** Saves a document as another bench of the list. @returns its number; null where it was not saved */
export async function keepCopy(
  { listId, name }: Pick<BenchFacts, 'listId' | 'name'>,
  doc: Bench,
): Promise<number | null> {
  const response = await fetch(`/api/lists/${listId}/benches`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: `${name}, my copy`.slice(0, 120), doc }),
  });
  return response.ok ? Made.parse(await response.json()).id : null;
}
