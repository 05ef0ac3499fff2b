import type { ColumnType } from '../table/column';
import { writeName } from './writeName';

/** What an example needs to know of a column. */
export interface ExampleColumn {
  readonly name: string;
  readonly type: ColumnType;
}

/** An expression for this list's columns, and what it is for. */
export interface Example {
  readonly words: string;
  readonly expression: string;
}

/**
 * Expressions that fit a list's columns, one for each thing that can be done with their types.
 * @example examplesFor([{ name: 'Fares', type: 'number' }, { name: 'Boarded', type: 'number' }])[0]
 * // { words: 'Fares for each Boarded', expression: 'Fares / NULLIF(Boarded, 0)' }
 */
export function examplesFor(columns: readonly ExampleColumn[]): Example[] {
  const of = (type: ColumnType): ExampleColumn[] => columns.filter((c) => c.type === type);
  const out: Example[] = [];
  const [first, second] = of('number');
  if (first && second)
    out.push({
      words: `${first.name} for each ${second.name}`,
      expression: `${writeName(first.name)} / NULLIF(${writeName(second.name)}, 0)`,
    });
  if (first)
    out.push(
      {
        words: `high or low ${first.name}`,
        expression: `CASE WHEN ${writeName(first.name)} >= 10 THEN 'high' ELSE 'low' END`,
      },
      {
        words: `${first.name}, 0 where there is none`,
        expression: `COALESCE(${writeName(first.name)}, 0)`,
      },
    );
  const [date] = of('date');
  if (date)
    out.push(
      {
        words: `the year of ${date.name}`,
        expression: `EXTRACT(YEAR FROM ${writeName(date.name)})`,
      },
      {
        words: `${date.name}, 30 days on`,
        expression: `${writeName(date.name)} + INTERVAL '30' DAY`,
      },
    );
  const [text] = of('text');
  if (text)
    out.push({
      words: `the first letters of ${text.name}`,
      expression: `UPPER(SUBSTRING(${writeName(text.name)} FROM 1 FOR 3))`,
    });
  return out;
}
