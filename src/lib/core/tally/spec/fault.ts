import { ExpressionError } from '../../errors';
import { z } from 'zod';
import { expressionIn } from '../../expression/reference';
import { expressionType } from '../../expression/evaluate';
import {
  scalarColumn,
  textColumn,
  TYPE_PHRASES,
  type Column,
  type ColumnType,
} from '../../table/column';
import { listed } from '../../table/format';
import { findColumn, nearestColumn } from '../../table/table';
import {
  MEASURES,
  needsOther,
  ofRecords,
  type Measure,
  type MeasureKind,
} from '../../measure/measure';

/** One thing wrong in an ask: where, what, and what to do about it. */
export const Fault = z.object({
  /** `tallies[0].down[1].column` */
  path: z.string(),
  message: z.string(),
  remedy: z.string(),
});
export type Fault = Readonly<z.infer<typeof Fault>>;

/** Measures that look beyond the group they stand under. */
export const RELATIVE: readonly MeasureKind[] = [
  'shareOfParent',
  'shareOfTotal',
  'recordsOfParent',
  'recordsOfTotal',
  'running',
];
/** Those of them that only need the whole. */
const OF_TOTAL: readonly MeasureKind[] = ['shareOfTotal', 'recordsOfTotal'];

/** What to name where a measure's second column is missing. */
const SECOND_COLUMN = {
  weights: 'Name the column of weights.',
  sum: 'Name the column whose sum stands against it.',
  shown: 'Name the column whose value it shows.',
} as const;

/** Gathers the faults of one ask, so that all are named and not only the first. */
export class Faults {
  readonly found: Fault[] = [];

  /** @param records how many there are, where records are named by number */
  constructor(
    readonly columns: readonly Column[],
    readonly records = Infinity,
  ) {}

  add(path: string, message: string, remedy: string): void {
    this.found.push({ path, message, remedy });
  }

  /** The column, or null and a fault where there is none or it is of another type. */
  column(path: string, ref: string, types?: readonly ColumnType[]): Column | null {
    const source = expressionIn(ref);
    const column =
      source === null ? findColumn(this.columns, ref) : this.#computed(path, ref, source);
    if (!column && source !== null) return null;
    if (!column) {
      const near = nearestColumn(this.columns, ref);
      this.add(
        path,
        `There is no column “${ref}”.`,
        near === null
          ? `The columns are ${this.columns.map((c) => `“${c.name}”`).join(', ')}.`
          : `Did you mean “${near}”?`,
      );
      return null;
    }
    if (types && !types.includes(column.type)) {
      this.add(
        path,
        `“${column.name}” is ${TYPE_PHRASES[column.type]}, but this needs ${listed(
          types.map((t) => TYPE_PHRASES[t]),
          'or',
        )}.`,
        this.#remedyFor(types),
      );
      return null;
    }
    return column;
  }

  /**
   * The measure's columns are there and suit it.
   * @param relative measures that look beyond their group and mean something in this kind of tally
   */
  measure(path: string, measure: Measure, relative: readonly MeasureKind[] = OF_TOTAL): void {
    if (RELATIVE.includes(measure.kind) && !relative.includes(measure.kind))
      this.add(
        `${path}.kind`,
        `The ${MEASURES[measure.kind].words} has no meaning in this kind of tally.`,
        'Ask for a sum or a count here, and for shares or running totals where the tally offers them.',
      );
    const { words, types } = MEASURES[measure.kind];
    if (measure.column === undefined) {
      if (!ofRecords(measure.kind))
        this.add(`${path}.column`, `The ${words} needs a column.`, 'Name the column it is of.');
    } else this.column(`${path}.column`, measure.column, types);
    const second = needsOther(measure.kind);
    if (second === null) return;
    if (measure.other === undefined)
      this.add(`${path}.other`, `The ${words} needs a second column.`, SECOND_COLUMN[second]);
    else if (second !== 'shown') this.column(`${path}.other`, measure.other, ['number', 'yesno']);
    else this.column(`${path}.other`, measure.other);
  }

  /** A column without records of the type an expression comes to; null and a fault where it is faulty. */
  #computed(path: string, ref: string, source: string): Column | null {
    try {
      const type = expressionType(source, this.columns);
      return type === 'text'
        ? textColumn(source, [], ref)
        : scalarColumn(source, type, [], { id: ref });
    } catch (error) {
      if (!(error instanceof ExpressionError)) throw error;
      this.add(path, `Character ${error.span.start + 1}: ${error.fault}`, error.remedy);
      return null;
    }
  }

  #remedyFor(types: readonly ColumnType[]): string {
    const fit = this.columns.filter((c) => types.includes(c.type)).map((c) => `“${c.name}”`);
    return fit.length === 0
      ? 'No column of this list is of that type: change the type in its recipe, or compute one.'
      : `Take ${listed(fit.slice(0, 8), 'or')}.`;
  }
}
