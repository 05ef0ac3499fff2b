import { DAY_MS } from '../table/calendar';
import { capital, fail } from './checkFault';
import type { Span } from './span';
import type { Typed } from './types';
import { TYPE_WORDS, type ValueType } from './valueType';

/*
 * Types that must agree: each of these gives what was asked for, or refuses at its place.
 */

export function need(typed: Typed, type: ValueType, remedy: string): Typed {
  if (typed.type !== type && typed.type !== 'null')
    fail(
      `Expected ${TYPE_WORDS[type]}, but this is ${TYPE_WORDS[typed.type]}.`,
      typed.span,
      remedy,
    );
  return typed;
}

/** Two values of one type; a date beside a date with time counts as its midnight. */
export function agreeing(left: Typed, right: Typed, span: Span): [Typed, Typed] {
  if (left.type === right.type || left.type === 'null' || right.type === 'null')
    return [left, right];
  if (left.type === 'date' && right.type === 'datetime') return [atMidnight(left), right];
  if (left.type === 'datetime' && right.type === 'date') return [left, atMidnight(right)];
  const text = left.type === 'text' ? left : right.type === 'text' ? right : null;
  const other = text === left ? right : left;
  return fail(
    `${capital(TYPE_WORDS[left.type])} and ${TYPE_WORDS[right.type]} cannot be compared.`,
    span,
    text === null ? 'Make both of one type with CAST.' : textRemedy(text, other.type),
  );
}

function atMidnight(of: Typed): Typed {
  return {
    op: 'scalar',
    type: 'datetime',
    fn: (day) => day * DAY_MS,
    args: [of],
    span: of.span,
  };
}

/** The type several values share. */
export function oneType(values: readonly Typed[], fault: string): [ValueType, Typed[]] {
  const types = new Set(values.map((v) => v.type).filter((t) => t !== 'null'));
  const mixed = types.size === 2 && types.has('date') && types.has('datetime');
  const first = values.find((v) => v.type !== 'null');
  if (types.size > 1 && !mixed) {
    const odd = values.find((v) => v.type !== 'null' && v.type !== first?.type) ?? values[0];
    fail(
      `${fault} Here stand ${[...types].map((t) => TYPE_WORDS[t]).join(' and ')}.`,
      odd.span,
      'Make them alike with CAST.',
    );
  }
  if (!mixed) return [first?.type ?? 'null', [...values]];
  return ['datetime', values.map((v) => (v.type === 'date' ? atMidnight(v) : v))];
}

export function compare(
  sign: '=' | '<>' | '<' | '<=' | '>' | '>=',
  a: Typed,
  b: Typed,
  span: Span,
): Typed {
  const [left, right] = agreeing(a, b, span);
  return { op: 'compare', type: 'yesno', sign, left, right, span };
}

export function arithmetic(
  sign: '+' | '-' | '*' | '/',
  left: Typed,
  right: Typed,
  span: Span,
): Typed {
  for (const side of [left, right]) {
    if (side.type === 'number' || side.type === 'null') continue;
    const remedy =
      side.type === 'text'
        ? sign === '+'
          ? 'Join texts with ||, or read it as a number: CAST(a AS NUMERIC).'
          : 'Read it as a number: CAST(a AS NUMERIC).'
        : side.type === 'yesno'
          ? 'Make it 1 or 0: CASE WHEN a THEN 1 ELSE 0 END.'
          : "Dates move by intervals: sailed_on + INTERVAL '3' DAY.";
    fail(`Expected a number, but this is ${TYPE_WORDS[side.type]}.`, side.span, remedy);
  }
  return { op: 'arithmetic', type: 'number', sign, left, right, span };
}

/** How to compare with a text what is not one. */
function textRemedy(text: Typed, other: ValueType): string {
  const value = text.op === 'constant' ? String(text.value) : null;
  switch (other) {
    case 'date':
      return value === null ? 'Read it as a date: CAST(a AS DATE).' : `Write DATE '${value}'.`;
    case 'datetime':
      return value === null ? 'CAST(a AS TIMESTAMP).' : `Write TIMESTAMP '${value}'.`;
    case 'time':
      return value === null ? 'CAST(a AS TIME).' : `Write TIME '${value}'.`;
    case 'yesno':
      return 'Write the column alone, or = TRUE.';
    default:
      return value === null
        ? 'Make both of one type with CAST.'
        : `Write ${value} without quotes, if it is a number.`;
  }
}
