import { isUndecided, noDateFacts, readClock, readDate, readDateTime } from '../read/dates';
import { DAY_MS } from '../table/calendar';
import type { Ast } from './ast';
import { fail } from './checkFault';
import { UNIT_MS, type MomentType } from './moments';
import type { Span } from './span';
import type { Typed } from './types';
import { TYPE_WORDS, type ValueType } from './valueType';

export const isMoment = (type: ValueType): type is MomentType =>
  type === 'date' || type === 'datetime' || type === 'time';

/** A date or time written out. @throws ExpressionError where its text is none */
export function momentOf({ type, text, span }: Extract<Ast, { node: 'moment' }>): Typed {
  const facts = noDateFacts();
  const value =
    type === 'date'
      ? readDate(text, 'ymd', facts)
      : type === 'time'
        ? readClock(text)
        : readDateTime(text, 'ymd', 'clock', facts);
  if (isUndecided(facts))
    fail(`“${text}” can be read two ways.`, span, `Write the year first: '2025-01-31'.`);
  const example = { date: '2025-01-31', time: '08:10', datetime: '2025-01-31 08:10' }[type];
  if (Number.isNaN(value))
    fail(`“${text}” is not ${TYPE_WORDS[type]}.`, span, `Write it as '${example}'.`);
  return { op: 'constant', type, value, span };
}

/** A date or time moved by an interval. @throws ExpressionError */
export function shift(
  of: Typed,
  { count, unit, span: at }: Extract<Ast, { node: 'interval' }>,
  sign: number,
  span: Span,
): Typed {
  if (!isMoment(of.type))
    return fail(
      `An interval can be added to a date or time, but this is ${TYPE_WORDS[of.type]}.`,
      of.span,
      "sailed_on + INTERVAL '3' DAY.",
    );
  const monthly = unit === 'YEAR' || unit === 'MONTH';
  const clock = unit === 'HOUR' || unit === 'MINUTE' || unit === 'SECOND';
  if (of.type === 'date' && clock)
    fail('A date has no hours.', at, 'Make it a date with time first: CAST(a AS TIMESTAMP).');
  if (of.type === 'time' && !clock) fail('A time has no days.', at, 'Use HOUR, MINUTE or SECOND.');
  const months = monthly ? count * (unit === 'YEAR' ? 12 : 1) * sign : 0;
  const ms = monthly ? 0 : count * UNIT_MS[unit] * sign;
  return {
    op: 'shift',
    type: of.type,
    of,
    months,
    units: of.type === 'date' ? ms / DAY_MS : ms,
    span,
  };
}
