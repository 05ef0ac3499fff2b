import { DAY_MS } from '../table/calendar';
import { fullScalarOf } from '../table/cell';
import { noDateFacts, readClock, readDate, readDateTime } from '../read/dates';
import type { CastTarget } from './ast';
import { roundTo, type ScalarFunction, type TextFunction } from './functions';
import type { ValueType } from './valueType';

/** How CAST makes one type of another; null where it cannot. What cannot be converted becomes none. */
export function conversion(
  from: ValueType,
  to: CastTarget,
): { scalar: ScalarFunction } | { textual: TextFunction } | null {
  if (to.type === 'text') return toText(from, to.length);
  if (from === 'text') return { textual: fromText(to) };
  switch (to.type) {
    case 'integer':
      return from === 'number' ? { scalar: (x) => Math.trunc(x) + 0 } : fromTruth(from);
    case 'number': {
      const { scale } = to;
      return from === 'number'
        ? { scalar: scale === null ? (x) => x : (x) => roundTo(x, scale) }
        : fromTruth(from);
    }
    case 'date':
      return from === 'datetime' ? { scalar: (x) => Math.floor(x / DAY_MS) } : same(from, 'date');
    case 'datetime':
      return from === 'date' ? { scalar: (x) => x * DAY_MS } : same(from, 'datetime');
    case 'time':
      return from === 'datetime'
        ? { scalar: (x) => x - Math.floor(x / DAY_MS) * DAY_MS }
        : same(from, 'time');
    case 'yesno':
      return same(from, 'yesno');
  }
}

const same = (from: ValueType, to: ValueType): { scalar: ScalarFunction } | null =>
  from === to || from === 'null' ? { scalar: (x) => x } : null;

/** Yes is 1 and no is 0, so that conditions can be summed and averaged. */
const fromTruth = (from: ValueType): { scalar: ScalarFunction } | null =>
  from === 'yesno' || from === 'null' ? { scalar: (x) => x } : null;

const NUMBER = /^[+-]?(\d+(\.\d*)?|\.\d+)(e[+-]?\d+)?$/i;
const YES = /^(true|yes|y|1)$/i;
const NO = /^(false|no|n|0)$/i;

function fromText(to: CastTarget): TextFunction {
  const facts = noDateFacts();
  return (value) => {
    const text = String(value).trim();
    switch (to.type) {
      case 'integer':
        return NUMBER.test(text) ? Math.trunc(Number(text)) + 0 : NaN;
      case 'number':
        return !NUMBER.test(text)
          ? NaN
          : to.scale === null
            ? Number(text)
            : roundTo(Number(text), to.scale);
      case 'date':
        return readDate(text, 'ymd', facts);
      case 'datetime':
        return readDateTime(text, 'ymd', 'clock', facts);
      case 'time':
        return readClock(text);
      case 'yesno':
        return YES.test(text) ? 1 : NO.test(text) ? 0 : NaN;
      case 'text':
        return text;
    }
  };
}

function toText(from: ValueType, length: number | null): { textual: TextFunction } {
  const cut = (text: string): string =>
    length === null ? text : [...text].slice(0, length).join('');
  const write = (value: string | number): string => {
    if (typeof value === 'string' || from === 'text' || from === 'null') return String(value);
    // As the literals of the language are written.
    if (from === 'yesno') return value ? 'TRUE' : 'FALSE';
    return fullScalarOf(from, value);
  };
  return { textual: (value) => cut(write(value)) };
}
