import type { ValueType } from './valueType';

/** Numbers in, a number out; NaN is none. */
export type ScalarFunction = (...args: number[]) => number;
/** Texts and numbers in; none of them null. Null or NaN out is none. */
export type TextFunction = (...args: (string | number)[]) => string | number | null;

interface Signature {
  /** Types of the arguments; the last `optional` ones may be left out. */
  readonly args: readonly ValueType[];
  readonly optional?: number;
  readonly result: ValueType;
  readonly example: string;
}

export type FunctionEntry = Signature &
  ({ readonly scalar: ScalarFunction } | { readonly textual: TextFunction });

/** Rounds half away from zero at a decimal place; the decimal digits written decide, not the binary ones. */
export function roundTo(x: number, places = 0): number {
  if (!Number.isFinite(x) || Math.abs(places) > 300) return x;
  const [digits, exponent = '0'] = String(Math.abs(x)).split('e');
  const shifted = Math.round(Number(`${digits}e${Number(exponent) + places}`));
  const rounded = Number(`${shifted}e${-places}`);
  return Number.isNaN(rounded) ? x : Math.sign(x) * rounded;
}

const characters = (text: string): string[] => [...text];

/** Characters from..from+length-1, counted from 1; places before the first count but hold nothing. */
function substring(text: string, from: number, length?: number): string | null {
  if (length !== undefined && length < 0) return null;
  const end = length === undefined ? Infinity : from + length;
  return characters(text)
    .slice(Math.max(0, from - 1), Math.max(0, end - 1))
    .join('');
}

/** Place of the first occurrence, counted in characters from 1; 0 where there is none. */
function position(part: string, text: string): number {
  const at = text.indexOf(part);
  return at < 0 ? 0 : characters(text.slice(0, at)).length + 1;
}

function trim(text: string, set: string, side: string): string {
  const cut = new Set(characters(set));
  const all = characters(text);
  let from = 0;
  let to = all.length;
  if (side !== 'TRAILING') while (from < to && cut.has(all[from])) from++;
  if (side !== 'LEADING') while (to > from && cut.has(all[to - 1])) to--;
  return all.slice(from, to).join('');
}

const trimming = (side: string): FunctionEntry => ({
  args: ['text', 'text'],
  result: 'text',
  example: 'TRIM(route)',
  textual: (text, set) => trim(String(text), String(set), side),
});

const length: FunctionEntry = {
  args: ['text'],
  result: 'number',
  example: 'CHAR_LENGTH(route)',
  textual: (text) => characters(String(text)).length,
};

const ceiling: FunctionEntry = {
  args: ['number'],
  result: 'number',
  example: 'CEILING(fares)',
  scalar: Math.ceil,
};

/** Functions of ISO/IEC 9075-2, and ROUND as most of the field has it. */
export const FUNCTIONS: Readonly<Record<string, FunctionEntry>> = {
  ABS: { args: ['number'], result: 'number', example: 'ABS(delay)', scalar: Math.abs },
  ROUND: {
    args: ['number', 'number'],
    optional: 1,
    result: 'number',
    example: 'ROUND(fares, 2)',
    scalar: roundTo,
  },
  FLOOR: { args: ['number'], result: 'number', example: 'FLOOR(fares)', scalar: Math.floor },
  CEILING: ceiling,
  CEIL: ceiling,
  MOD: {
    args: ['number', 'number'],
    result: 'number',
    example: 'MOD(boarded, 10)',
    scalar: (a, b) => a % b,
  },
  POWER: {
    args: ['number', 'number'],
    result: 'number',
    example: 'POWER(boarded, 2)',
    scalar: Math.pow,
  },
  SQRT: { args: ['number'], result: 'number', example: 'SQRT(boarded)', scalar: Math.sqrt },
  LN: {
    args: ['number'],
    result: 'number',
    example: 'LN(fares)',
    scalar: (x) => (x > 0 ? Math.log(x) : NaN),
  },
  EXP: { args: ['number'], result: 'number', example: 'EXP(growth)', scalar: Math.exp },
  UPPER: {
    args: ['text'],
    result: 'text',
    example: 'UPPER(route)',
    textual: (text) => String(text).toUpperCase(),
  },
  LOWER: {
    args: ['text'],
    result: 'text',
    example: 'LOWER(route)',
    textual: (text) => String(text).toLowerCase(),
  },
  'TRIM BOTH': trimming('BOTH'),
  'TRIM LEADING': trimming('LEADING'),
  'TRIM TRAILING': trimming('TRAILING'),
  SUBSTRING: {
    args: ['text', 'number', 'number'],
    optional: 1,
    result: 'text',
    example: 'SUBSTRING(route FROM 1 FOR 3)',
    textual: (text, from, n) =>
      substring(String(text), Number(from), n === undefined ? undefined : Number(n)),
  },
  POSITION: {
    args: ['text', 'text'],
    result: 'number',
    example: "POSITION('-' IN route)",
    textual: (part, text) => position(String(part), String(text)),
  },
  CHAR_LENGTH: length,
  CHARACTER_LENGTH: length,
};

/** Functions that are checked apart: their types follow from their arguments. */
export const SPECIAL = ['COALESCE', 'NULLIF', 'GREATEST', 'LEAST'] as const;
