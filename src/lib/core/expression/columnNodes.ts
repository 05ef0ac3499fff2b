import { isText, type Column, type TextColumn } from '../table/column';
import { BLOCK, view, type Scalars, type Texts } from './blocks';

/** A column is read where it lies. */
export function scalarColumn(column: Column): Scalars {
  if (isText(column)) throw new TypeError(`${column.name} is text.`);
  const node: Scalars = {
    data: column.values,
    run(from, n) {
      node.data = view(column.values, from, n);
    },
  };
  return node;
}

/** Texts by the codes of a column; `none` stands for the code -1. */
function textsByCode(
  codes: Int32Array,
  texts: readonly (string | null)[],
  none: string | null,
): Texts {
  const out = new Array<string | null>(BLOCK).fill(null);
  return {
    data: out,
    run(from, n) {
      for (let i = 0; i < n; i++) {
        const code = codes[from + i];
        out[i] = code < 0 ? none : texts[code];
      }
    },
  };
}

/** The texts of a column. */
export function textColumnReader(column: Column): Texts {
  if (!isText(column)) throw new TypeError(`${column.name} is not text.`);
  return textsByCode(column.codes, column.dictionary, null);
}

/**
 * Scalars worked out once for each distinct text of a column.
 * @param node the expression over the column's dictionary, its last place the none
 */
export function liftScalars(node: Scalars, column: TextColumn): Scalars {
  const size = column.dictionary.length + 1;
  const byCode = new Float64Array(size);
  for (let from = 0; from < size; from += BLOCK) {
    const n = Math.min(BLOCK, size - from);
    node.run(from, n);
    byCode.set(node.data.subarray(0, n), from);
  }
  const out = new Float64Array(BLOCK);
  const { codes } = column;
  return {
    data: out,
    run(from, n) {
      for (let i = 0; i < n; i++) {
        const code = codes[from + i];
        out[i] = byCode[code < 0 ? size - 1 : code];
      }
    },
  };
}

/** The same for texts. */
export function liftTexts(node: Texts, column: TextColumn): Texts {
  const size = column.dictionary.length + 1;
  const byCode: (string | null)[] = [];
  for (let from = 0; from < size; from += BLOCK) {
    const n = Math.min(BLOCK, size - from);
    node.run(from, n);
    for (let i = 0; i < n; i++) byCode.push(node.data[i]);
  }
  return textsByCode(column.codes, byCode, byCode[size - 1]);
}
