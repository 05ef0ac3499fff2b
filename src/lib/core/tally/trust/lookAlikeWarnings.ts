import type { GroupKey } from '../../arrange/groupKey';
import { looseForm } from '../../arrange/groupCodes';
import { columnFor, columnInSteps } from '../../expression/columnFor';
import { inStretches, STRIDE, type Task } from '../../task/task';
import { isText } from '../../table/column';
import { counted } from '../../table/format';
import type { Table } from '../../table/table';
import { warn, type Warning } from './warnings';

/** By dictionary, and for as long as it is there: how many of its texts look like another. */
const known = new WeakMap<readonly string[], number>();

/** How many labels of a key differ from another one only in case or outer spaces; 0 unless text. */
export function* labelsAlike(table: Table, key: GroupKey): Task<number> {
  const column = yield* columnInSteps(table, key.column);
  if (!isText(column) || key.bands) return 0;
  const { dictionary } = column;
  let alike = known.get(dictionary);
  if (alike === undefined) {
    const forms = new Set<string>();
    yield* inStretches(
      dictionary.length,
      (from, to) => {
        for (let k = from; k < to; k++) forms.add(looseForm(dictionary[k]));
      },
      STRIDE >> 4,
    );
    known.set(dictionary, (alike = dictionary.length - forms.size));
  }
  return alike;
}

/** Whether labels that look the same are one group or several: either way, it is said. */
export function* alikeWarnings(table: Table, keys: readonly GroupKey[]): Task<Warning[]> {
  const seen = new Set<string>();
  const warnings: Warning[] = [];
  for (const key of keys) {
    const alike = seen.has(key.column) ? 0 : yield* labelsAlike(table, key);
    seen.add(key.column);
    if (alike === 0) continue;
    const { name } = columnFor(table, key.column);
    const what = `${counted(alike, 'label')} of ${name} ${alike === 1 ? 'differs' : 'differ'} from another only in case or outer spaces`;
    warnings.push(
      key.loose
        ? warn('labels-as-one', `${what}; they are taken as one.`)
        : warn('labels-alike', `${what}; each makes a group of its own.`),
    );
  }
  return warnings;
}
