import type { ScalarColumn, ScalarType, TextColumn } from '../../table/column';

/** Facts of a column on its way from a file that knows its types. */
interface Named {
  readonly id: string;
  readonly name: string;
}

/** Decimals shown beyond these say more of the way numbers are held than of the numbers. */
const MOST_DECIMALS = 6;

/** Decimals that the numbers of a column need, six at most: 0 for whole ones. */
export function decimalsOf(values: Float64Array): number {
  let decimals = 0;
  let power = 1;
  for (const v of values) {
    if (v !== v || Number.isInteger(v)) continue;
    while (
      decimals < MOST_DECIMALS &&
      Math.abs(Math.round(v * power) / power - v) > 1e-9 * Math.abs(v)
    ) {
      decimals++;
      power *= 10;
    }
    if (decimals === MOST_DECIMALS) break;
  }
  return decimals;
}

export const scalarOf = (
  { id, name }: Named,
  type: ScalarType,
  values: Float64Array,
): ScalarColumn => ({
  id,
  name,
  unit: '',
  type,
  values,
  unread: new Map(),
  decimals: type === 'number' ? decimalsOf(values) : 0,
  percent: false,
  grain: 'day',
});

/** Texts to a dictionary and its codes; null and the empty text are blank. */
export function textOf(
  { id, name }: Named,
  length: number,
  at: (i: number) => string | null,
): TextColumn {
  const codes = new Int32Array(length);
  const known = new Map<string, number>();
  for (let i = 0; i < length; i++) {
    const text = at(i);
    if (text === null || text.trim() === '') {
      codes[i] = -1;
      continue;
    }
    let code = known.get(text);
    if (code === undefined) known.set(text, (code = known.size));
    codes[i] = code;
  }
  return { id, name, unit: '', type: 'text', codes, dictionary: [...known.keys()] };
}
