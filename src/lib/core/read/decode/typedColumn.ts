import { DAY_MS, FIRST_DAY, LAST_DAY } from '../../table/calendar';
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

/**
 * A column of stored values. What no date or time of ours can be (a day outside years 1 to 9999, a part of
 * a day, a time past midnight) is unread: the stored number is its text.
 * @param values written over where one is unread
 * @param unread what was unread before, by its record
 */
export function scalarOf(
  { id, name }: Named,
  type: ScalarType,
  values: Float64Array,
  unread: Map<number, string> = new Map(),
): ScalarColumn {
  const isValue = VALUES[type];
  if (isValue)
    for (let i = 0; i < values.length; i++) {
      const v = values[i];
      if (v !== v || isValue(v)) continue;
      unread.set(i, String(v));
      values[i] = NaN;
    }
  return {
    id,
    name,
    unit: '',
    type,
    values,
    unread,
    decimals: type === 'number' ? decimalsOf(values) : 0,
    percent: false,
    grain: 'day',
  };
}

/** Which numbers stand for a value of each type; any does where none is named. */
const VALUES: Readonly<Partial<Record<ScalarType, (v: number) => boolean>>> = {
  date: (day) => Number.isInteger(day) && day >= FIRST_DAY && day <= LAST_DAY,
  datetime: (ms) => ms >= FIRST_DAY * DAY_MS && ms < (LAST_DAY + 1) * DAY_MS,
  time: (ms) => ms >= 0 && ms < DAY_MS,
};

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
