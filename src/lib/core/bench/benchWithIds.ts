import type { Column } from '../table/column';
import { conditionWithIds, formatsWithIds, idOf, withIds } from '../tally/spec/withIds';
import type { Bench } from './document';

/**
 * A bench whose tallies, steps and formats name columns by their ids. One that was made of an ask may name
 * them as people do; whoever shows it would look for ids in vain.
 */
export function benchWithIds(doc: Bench, columns: readonly Column[]): Bench {
  const tray = doc.tray.map((item) => ({ ...item, tally: withIds(item.tally, columns) }));
  const rungs = doc.ladder.rungs.map((rung) => ({
    ...rung,
    condition: conditionWithIds(columns, rung.condition),
  }));
  return {
    ...doc,
    tray,
    ladder: { ...doc.ladder, rungs },
    sort: doc.sort.map((key) => ({ ...key, column: idOf(columns, key.column) })),
    lead: doc.lead === null ? null : idOf(columns, doc.lead),
    formats: formatsWithIds(doc.formats, columns),
  };
}
