import type { GroupKey } from '../arrange/groupKey';
import { looseForm } from '../arrange/groupCodes';
import { columnFor } from '../expression/columnFor';
import { isText } from '../table/column';
import { counted } from '../table/format';
import type { Table } from '../table/table';
import { warn, type Warning } from './warnings';

/** How many labels of a key differ from another one only in case or outer spaces; 0 unless text. */
export function labelsAlike(table: Table, key: GroupKey): number {
  const column = columnFor(table, key.column);
  if (!isText(column) || key.bands) return 0;
  return column.dictionary.length - new Set(column.dictionary.map(looseForm)).size;
}

/** Whether labels that look the same are one group or several: either way, it is said. */
export function alikeWarnings(table: Table, keys: readonly GroupKey[]): Warning[] {
  const seen = new Set<string>();
  return keys.flatMap((key): Warning[] => {
    const alike = seen.has(key.column) ? 0 : labelsAlike(table, key);
    seen.add(key.column);
    if (alike === 0) return [];
    const { name } = columnFor(table, key.column);
    const what = `${counted(alike, 'label')} of ${name} ${alike === 1 ? 'differs' : 'differ'} from another only in case or outer spaces`;
    return [
      key.loose
        ? warn('labels-as-one', `${what}; they are taken as one.`)
        : warn('labels-alike', `${what}; each makes a group of its own.`),
    ];
  });
}
