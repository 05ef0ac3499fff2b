import { showCount } from '../../table/format';
import type { Column } from '../../table/column';
import { fullCell } from '../../table/cell';
import { isMissing } from '../../table/column';
import type { Table } from '../../table/table';
import { ColumnReader } from '../columnReader';
import { uniqueNames, unitOfHead } from '../infer';
import type { DelimitedReading } from '../delimited';
import { MAX_COLUMNS, type ColumnRecipe, type Recipe } from '../recipe';
import { IntakeError } from '../../errors';
import type { Source } from './source';

/** The recipe of a file that knows its types: its columns as they are. @throws IntakeError */
export function typedRecipe(table: Table, source: Source): Recipe {
  if (table.columns.length > MAX_COLUMNS)
    throw new IntakeError(
      'tooManyColumns',
      `The file has ${showCount(table.columns.length)} columns; a list can have ${showCount(MAX_COLUMNS)}.`,
    );
  const heads = table.columns.map(({ name }) => unitOfHead(name.slice(0, 200)));
  const { names } = uniqueNames(heads.map(({ name }) => name));
  return {
    format: 'delimited',
    delimiter: ',',
    quote: '"',
    encoding: 'utf-8',
    header: true,
    skipLines: 0,
    notesBelow: 0,
    source,
    width: table.columns.length,
    columns: table.columns.map((column, at): ColumnRecipe => ({
      id: column.id,
      at,
      source: column.name,
      name: names[at],
      type: column.type,
      unit: column.unit || heads[at].unit,
      unitInCells: false,
      takenOff: '',
      thousands: '',
      decimal: '.',
      dateOrder: 'ymd',
      dayNumbers: false,
      grain: 'day',
      zone: 'clock',
      blanks: [],
    })),
  };
}

/**
 * A table read by a recipe: its columns as they are, under the recipe's names. One that the recipe reads
 * as another type is read from the text of its cells, as a file's would be.
 */
export function readTyped(table: Table, recipe: Recipe): DelimitedReading {
  const { length } = table;
  const read = recipe.columns.map((column) => readColumn(table, column));
  return {
    table: { length, columns: read.map(({ column }) => column) },
    evidence: {
      columns: read.map(({ evidence }) => evidence),
      samples: recipe.columns.map(() => []),
      widthFaults: { count: 0, first: [] },
      width: recipe.width,
      emptyLines: 0,
      undecoded: 0,
      nuls: 0,
      mixedLineEnds: false,
      quoteFaults: [],
      skipped: [],
      headerAgain: { count: 0, records: [] },
      units: [],
      spanning: { count: 0, first: [] },
      notes: [],
      sparse: { count: 0, last: 0 },
    },
  };
}

function readColumn(
  table: Table,
  recipe: ColumnRecipe,
): { column: Column; evidence: DelimitedReading['evidence']['columns'][number] } {
  const reader = new ColumnReader(recipe);
  const from = recipe.at === null ? undefined : table.columns[recipe.at];
  if (from && from.type === recipe.type && recipe.blanks.length === 0) {
    const { id, name, unit } = recipe;
    return { column: { ...from, id, name, unit }, evidence: reader.evidence };
  }
  for (let i = 0; i < table.length; i++)
    reader.push(from && !isMissing(from, i) ? fullCell(from, i) : '');
  return { column: reader.finish(), evidence: reader.evidence };
}
