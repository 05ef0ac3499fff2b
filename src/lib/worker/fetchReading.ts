import { z } from 'zod';
import { Recipe } from '../core/read/recipe';
import { TableAssembler } from '../core/table/arrowRead';
import type { Table } from '../core/table/table';

/** What the server tells of a stored reading. */
const Facts = z.object({
  listName: z.string(),
  records: z.int(),
  chunks: z.int(),
  stamp: z.string(),
  recipe: Recipe,
});
export type ReadingFacts = z.infer<typeof Facts>;

/** @throws Error where the server does not give it */
export async function fetched(url: string): Promise<Response> {
  const response = await fetch(url);
  if (!response.ok)
    throw new Error(`The list could not be fetched (${response.status}). Reload the page.`);
  return response;
}

/** A reading's table, chunk by chunk. @param base where the server is */
export async function fetchReading(
  reading: number,
  base: string,
  progress: (share: number) => void = () => undefined,
): Promise<{ facts: ReadingFacts; table: Table }> {
  const facts = Facts.parse(await (await fetched(`${base}/api/readings/${reading}`)).json());
  const assembler = new TableAssembler(facts.records);
  // Kept by the browser under the stamp: the number may be another reading's after a copy was put back.
  const stamp = encodeURIComponent(facts.stamp);
  for (let n = 0; n < facts.chunks; n++) {
    const chunk = await fetched(`${base}/api/readings/${reading}/chunks/${n}?stamp=${stamp}`);
    assembler.push(new Uint8Array(await chunk.arrayBuffer()));
    progress((n + 1) / facts.chunks);
  }
  return { facts, table: assembler.finish() };
}
