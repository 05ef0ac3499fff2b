import { resolve, type AskedList, type Resolved } from '../ask/resolve';
import { compute } from '../ask/compute';
import { MadeListRefused } from '../errors';
import { reshape, takingAll } from '../prepare/reshape';
import { ColumnRecipe, Recipe } from '../read/recipe';
import { MEASURES } from '../measure/measure';
import type { Task } from '../task/task';
import { isText, type Column } from '../table/column';
import { namesOf, type Table } from '../table/table';
import { resultTable } from '../tally/answer/resultTable';
import type { AnswerTable } from '../tally/answer/answer';
import { kindOf } from '../tally/kind/kinds';
import { questionOf } from './askOf';
import type { Bench } from './document';
import type { Making } from './origin';
import { inOrder } from '../table/recordOrder';

/** A list made of another. */
export interface MadeList {
  readonly table: Table;
  /** What it holds, in a sentence. */
  readonly words: string;
}

/**
 * The list that a bench's records, or a tally over them, come to.
 * @throws MadeListRefused where the bench, or what is made of it, does not fit its list
 */
export function* makeList(list: AskedList, doc: Bench, make: Making): Task<MadeList> {
  const resolved = yield* resolve(list, questionOf(doc));
  const [fault] = resolved.firstFaults;
  if (fault) throw new MadeListRefused(`${fault.message} ${fault.remedy}`.trim());
  return make.of === 'tally' ? yield* ofTally(resolved, make) : yield* ofRecords(resolved, make);
}

function* ofRecords(resolved: Resolved, make: Extract<Making, { of: 'records' }>): Task<MadeList> {
  const { table, counted, order } = resolved.input;
  const [fault] = make.records === 'counted' ? resolved.faults : [];
  if (fault) throw new MadeListRefused(`${fault.message} ${fault.remedy}`.trim());
  const records = make.records === 'all' ? order : inOrder(order, counted);
  const asTheyAre = records.length === table.length && resolved.input.sort.length === 0;
  let made = asTheyAre ? table : yield* takingAll(table, records);
  for (const spec of make.reshape) made = yield* reshape(made, spec);
  return { table: listable(made, null), words: recordsWords(make, namesOf(table)) };
}

function* ofTally(resolved: Resolved, make: Extract<Making, { of: 'tally' }>): Task<MadeList> {
  const { answer, refused, faults } = yield* compute(resolved, make.tally, 'tally');
  const [fault] = [...resolved.faults, ...faults];
  if (fault) throw new MadeListRefused(`${fault.message} ${fault.remedy}`.trim());
  const table = answer?.tables.find((t) => t.name === make.table);
  if (!answer || !table)
    throw new MadeListRefused(refused || `The result has no table “${make.table}”.`);
  return {
    table: listable((yield* resultTable(table)).list, table),
    words: kindOf(make.tally).plain(namesOf(resolved.input.table), resolved.input.listName),
  };
}

/** What records become, in words. */
function recordsWords(
  { records, reshape: shape }: Extract<Making, { of: 'records' }>,
  names: ReadonlyMap<string, string>,
): string {
  const which = records === 'all' ? 'All records' : 'The counted records';
  const how = shape.map((spec) =>
    spec.do === 'stack'
      ? `${spec.columns.length} columns stacked as ${spec.name} and ${spec.value}`
      : `a column for each ${names.get(spec.name) ?? spec.name} with its ${names.get(spec.value) ?? spec.value}`,
  );
  return [which, ...how].join(', ') + '.';
}

/** Names and ids that a stored list can have: none empty, too long or twice there. */
function listable(table: Table, of: AnswerTable | null): Table {
  const names = new Set<string>();
  const ids = new Set<string>();
  const columns = table.columns.map((column, k): Column => {
    const measure = of?.columns[k].measure;
    const plain = column.name.trim() || `Column ${k + 1}`;
    const name = measure && names.has(plain) ? `${plain}, ${MEASURES[measure.kind].words}` : plain;
    return {
      ...column,
      name: free(name, names, 200),
      id: free(column.id.trim() || `column ${k + 1}`, ids, 80),
    };
  });
  return { ...table, columns };
}

function free(wanted: string, taken: Set<string>, most: number): string {
  let name = wanted.slice(0, most);
  for (let n = 2; taken.has(name); n++) name = `${wanted.slice(0, most - 7)} ${n}`;
  taken.add(name);
  return name;
}

/** What stands for the recipe of a list that was read from no file: its columns, by their places. */
export const recipeOfMade = ({ columns }: Table): Recipe =>
  Recipe.parse({
    delimiter: ',',
    quote: '"',
    encoding: 'utf-8',
    header: true,
    skipLines: 0,
    width: columns.length,
    columns: columns.map((column, at) =>
      ColumnRecipe.parse({
        id: column.id,
        at,
        source: column.name,
        name: column.name,
        type: column.type,
        unit: column.unit,
        ...(!isText(column) && column.type === 'date' && { grain: grainOf(column.grain) }),
      }),
    ),
  });

/** Spans that a column of a file can have; others are written as the day they begin on. */
const grainOf = (grain: string): string =>
  ['day', 'month', 'quarter', 'year'].includes(grain) ? grain : 'day';
