import { gatherReport, type Report } from '$lib/engine/report';
import { engineOf } from './ledger';
import type { ThreadTask } from '../tasks';

/** The report of a stored bench: its words and figures. */
export async function report({
  database,
  doc,
  others,
  facts,
}: Extract<ThreadTask, { task: 'report' }>): Promise<Report> {
  const engine = await engineOf(database, doc.reading, others);
  const counts = engine.now('resolve', { doc });
  return gatherReport((kind, args) => engine.now(kind, args), counts, doc, facts);
}
