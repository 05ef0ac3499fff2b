import { isText, type TextColumn } from '../table/column';
import { columnsRead, type Typed } from './types';

/**
 * An expression that reads one text column and no other is worked out once for each distinct text,
 * and looked up for the records.
 */

/** The one text column a larger expression reads, where its dictionary is the smaller work; else null. */
export function liftedColumn(t: Typed): TextColumn | null {
  if (t.op === 'column' || t.op === 'constant') return null;
  const [column, ...others] = columnsRead(t);
  if (!column || others.length > 0 || !isText(column) || !column.codes.length) return null;
  return column.dictionary.length < column.codes.length / 2 ? column : null;
}

/** The expression over the dictionary, and behind it over a blank. */
export function overDictionary(t: Typed, column: TextColumn): Typed {
  const size = column.dictionary.length;
  const codes = Int32Array.from({ length: size + 1 }, (_, i) => (i < size ? i : -1));
  return replaceColumn(t, { ...column, codes });
}

function replaceColumn(t: Typed, column: TextColumn): Typed {
  if (t.op === 'column') return { ...t, column };
  const replaced: Record<string, unknown> = { ...t };
  for (const [key, value] of Object.entries(t)) {
    if (isTyped(value)) replaced[key] = replaceColumn(value, column);
    else if (Array.isArray(value))
      replaced[key] = value.map((item: unknown) =>
        isTyped(item)
          ? replaceColumn(item, column)
          : isWhen(item)
            ? { when: replaceColumn(item.when, column), then: replaceColumn(item.then, column) }
            : item,
      );
  }
  return replaced as unknown as Typed;
}

const isTyped = (value: unknown): value is Typed =>
  typeof value === 'object' && value !== null && 'op' in value && 'type' in value;
const isWhen = (value: unknown): value is { when: Typed; then: Typed } =>
  typeof value === 'object' && value !== null && 'when' in value && 'then' in value;
