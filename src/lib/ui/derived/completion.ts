import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { FUNCTIONS, SPECIAL } from '../../core/expression/functions';
import { RESERVED } from '../../core/expression/parse';
import { writeName } from '../../core/expression/writeName';
import { typeName, type ColumnType } from '../../core/table/column';

/** What can be completed: the list's columns, and the values of one. */
export interface Completing {
  readonly columns: readonly {
    readonly id: string;
    readonly name: string;
    readonly type: ColumnType;
    readonly unit: string;
  }[];
  /** Values of a column that hold what was typed. */
  values(column: string, search: string): Promise<readonly string[]>;
}

const NAME = /"(?:[^"]|"")*"?$|[\p{L}_][\p{L}\p{M}\p{N}_]*$/u;
/** A text being written after a column that it is compared with. */
const VALUE =
  /("(?:[^"]|"")+"|[\p{L}_][\p{L}\p{M}\p{N}_]*)\s*(?:=|<>|LIKE|(?:NOT\s+)?IN\s*\([^)]*?)\s*'((?:[^']|'')*)$/iu;

const functions: Completion[] = [...new Set(Object.keys(FUNCTIONS).map((n) => n.split(' ')[0]))]
  .concat(SPECIAL)
  .map((label) => ({ label, apply: `${label}(`, type: 'function', detail: 'function' }));
const words: Completion[] = [...RESERVED].map((label) => ({ label, type: 'keyword', boost: -1 }));

/** Completes columns, functions, words, and in a text the values of the column before it. */
export const completions =
  (completing: () => Completing) =>
  async (context: CompletionContext): Promise<CompletionResult | null> => {
    const before = context.state.sliceDoc(0, context.pos);
    const value = VALUE.exec(before);
    if (value) return valuesOf(completing(), value[1], value[2], context.pos);
    // Within a text there is nothing else to complete.
    if ((before.match(/'/g)?.length ?? 0) % 2 === 1) return null;
    const name = NAME.exec(before);
    if (!name && !context.explicit) return null;
    const columns = completing().columns.map(({ name: label, type, unit }): Completion => ({
      label,
      apply: writeName(label),
      type: 'variable',
      detail: unit ? `${typeName[type]}, ${unit}` : typeName[type],
      boost: 1,
    }));
    // A word that stands there whole needs no completion.
    const typed = (name?.[0] ?? '').toUpperCase();
    const quoted = name?.[0].startsWith('"') === true;
    return {
      from: context.pos - (name?.[0].length ?? 0) + Number(quoted),
      options: quoted
        ? columns.map((c) => ({ ...c, apply: closing(c.label, '"') }))
        : [...columns, ...[...functions, ...words].filter(({ label }) => label !== typed)],
      validFor: quoted ? /^[^"]*$/ : /^[\p{L}\p{M}\p{N}_]*$/u,
    };
  };

/** Writes a name or a text to its closing quote, which may stand there already. */
const closing =
  (label: string, quote: string): NonNullable<Completion['apply']> =>
  (view, _, from, to) => {
    const insert = label.replaceAll(quote, quote + quote) + quote;
    const end = view.state.sliceDoc(to, to + 1) === quote ? to + 1 : to;
    view.dispatch({
      changes: { from, to: end, insert },
      selection: { anchor: from + insert.length },
      userEvent: 'input.complete',
    });
  };

async function valuesOf(
  { columns, values }: Completing,
  written: string,
  typed: string,
  at: number,
): Promise<CompletionResult | null> {
  const name = written.startsWith('"') ? written.slice(1, -1).replaceAll('""', '"') : written;
  const loose = (text: string): string => text.trim().toLowerCase();
  const column = columns.find((c) => loose(c.name) === loose(name) || loose(c.id) === loose(name));
  if (!column) return null;
  const found = await values(column.id, typed);
  return {
    from: at - typed.length,
    filter: false,
    options: found.map((label) => ({
      label,
      apply: closing(label, "'"),
      type: 'text',
      detail: 'value',
    })),
  };
}
