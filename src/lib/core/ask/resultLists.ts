import type { Task } from '../task/task';
import { counted } from '../table/format';
import type { Table } from '../table/table';
import { freezeAll, tableOf } from '../tally/answer/answer';
import { wholeInput, type TallyInput } from '../tally/input/input';
import { evaluate } from '../tally/kind/evaluate';
import type { Fault } from '../tally/spec/fault';
import type { TallyResult } from '../tally/answer/result';
import { warn, type Warning } from '../tally/trust/warnings';
import { resultTable } from '../tally/answer/resultTable';
import type { ListSource, Question } from './question';

/** The list a question is about, and the other ones it names. */
interface Lists {
  readonly name: string;
  readonly table: Table;
  readonly others: ReadonlyMap<string, Table>;
}

/** Results as lists, with the other lists beside them. */
export interface ResultLists {
  readonly others: Map<string, Table>;
  readonly warnings: Warning[];
  readonly faults: Fault[];
}

/** Whether a list follows what a question counts, and is not there before that is known. */
export const followsCounted = ({ tally, follows }: ListSource): boolean =>
  tally !== undefined && follows === 'counted';

/** Whether a list is made of a result, and not read from somewhere. */
export const isOfResult = (source: ListSource): boolean =>
  source.tally !== undefined || source.frozen !== undefined;

/**
 * Results as lists of their own (calculations, section 11): linked ones are computed from the list as
 * it was read, frozen ones are taken as they were, with a note of when and from what. Those that do
 * not fit are told and are not there.
 * @param followed what the list came to: only those that follow its counted records are computed, of it
 */
export function* withResultLists(
  list: Lists,
  question: Pick<Question, 'lists'>,
  followed: TallyInput | null = null,
): Task<ResultLists> {
  const others = new Map(list.others);
  const warnings: Warning[] = [];
  const faults: Fault[] = [];
  for (const [name, source] of Object.entries(question.lists)) {
    if (followsCounted(source) !== (followed !== null)) continue;
    const path = `lists.${name}`;
    const result =
      source.frozen?.result ??
      (yield* linked(
        // Its conditions and bands may look at the lists before it.
        { ...(followed ?? wholeInput(list.table, list.name)), others },
        source,
        path,
        faults,
      ));
    if (!result) continue;
    const table = result.tables.find((t) => t.name === source.table);
    if (!table) {
      faults.push({
        path: `${path}.table`,
        message: `The result has no table “${source.table}”.`,
        remedy: `Take one of ${result.tables.map((t) => t.name).join(', ')}.`,
      });
      continue;
    }
    others.set(name, (yield* resultTable(tableOf(table))).list);
    const groups = counted(table.rows.filter((r) => r.kind === 'group').length, 'record');
    warnings.push(
      source.frozen
        ? warn(
            'frozen-list',
            `“${name}” holds ${groups} frozen on ${source.frozen.on} from ${source.frozen.from}: ${result.words}`,
          )
        : warn(
            'linked-list',
            `“${name}” holds ${groups} that follow ${list.name} as ${followed ? 'it is counted' : 'it was read'}: ${result.words}`,
          ),
    );
  }
  return { others, warnings, faults };
}

/** What a linked list is made of; null where it does not fit, which is told. */
function* linked(
  input: TallyInput,
  { tally }: ListSource,
  path: string,
  faults: Fault[],
): Task<TallyResult | null> {
  if (!tally) return null;
  const { answer, faults: own, refused } = yield* evaluate(input, tally, `${path}.tally`);
  faults.push(...own);
  if (refused) faults.push({ path: `${path}.tally`, message: refused, remedy: '' });
  // What is made of a tally rests on all of it: a part that does not fit leaves no list.
  if (!answer || own.length) return null;
  return { ...answer, tables: yield* freezeAll(answer.tables), warnings: [...answer.warnings] };
}
