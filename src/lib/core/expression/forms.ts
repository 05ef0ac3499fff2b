import { ExpressionError } from '../errors';
import { INTERVAL_UNITS, type Ast, type CastTarget } from './ast';
import type { Token } from './lex';
import { joined, type TokenReader } from './tokenReader';

/** The forms of the language that have words between their parts; `expression` reads a whole part. */

/** DATE '2025-01-31', TIME '08:10', TIMESTAMP '2025-01-31 08:10', INTERVAL '3' DAY. */
export function literal(r: TokenReader, word: Token, value: Token): Ast {
  r.skip(2);
  if (word.text !== 'INTERVAL')
    return {
      node: 'moment',
      type: word.text === 'DATE' ? 'date' : word.text === 'TIME' ? 'time' : 'datetime',
      text: value.text,
      span: joined(word.span, value.span),
    };
  const unit = INTERVAL_UNITS.find((u) => r.take(u));
  if (!unit)
    r.fail(
      'An interval needs its unit.',
      "Write INTERVAL '3' DAY, or YEAR, MONTH, HOUR, MINUTE, SECOND.",
    );
  const count = Number(value.text);
  const whole = unit === 'YEAR' || unit === 'MONTH';
  if (value.text.trim() === '' || Number.isNaN(count) || (whole && !Number.isInteger(count)))
    throw new ExpressionError(
      `“${value.text}” is not a count of ${unit.toLowerCase()}s.`,
      value.span,
      "Write a number in the quotes: INTERVAL '3' DAY.",
    );
  return { node: 'interval', count, unit, span: joined(word.span, r.before.span) };
}

/** CASE [subject] WHEN … THEN … [ELSE …] END. */
export function caseForm(r: TokenReader, expression: () => Ast): Ast {
  const open = r.now;
  r.skip();
  const subject = r.now.text === 'WHEN' && r.now.kind === 'word' ? null : expression();
  const whens: { when: Ast; then: Ast }[] = [];
  while (r.take('WHEN')) {
    const tested = expression();
    r.must('THEN', 'Each WHEN needs a THEN.');
    const then = expression();
    const when: Ast =
      subject === null
        ? tested
        : { node: 'compare', op: '=', left: subject, right: tested, span: tested.span };
    whens.push({ when, then });
  }
  if (whens.length === 0)
    r.fail('A CASE needs at least one WHEN.', "CASE WHEN delay >= 10 THEN 'late' END.");
  const otherwise = r.take('ELSE') ? expression() : null;
  r.must('END', 'A CASE ends with END.');
  return { node: 'case', whens, otherwise, span: joined(open.span, r.before.span) };
}

/** CAST(a AS type). */
export function castForm(r: TokenReader, expression: () => Ast): Ast {
  const open = r.now;
  r.skip();
  r.mustSign('(', 'CAST(a AS INTEGER).');
  const of = expression();
  r.must('AS', 'CAST(a AS INTEGER).');
  const to = castTarget(r);
  r.mustSign(')', 'CAST(a AS INTEGER).');
  return { node: 'cast', of, to, span: joined(open.span, r.before.span) };
}

function castTarget(r: TokenReader): CastTarget {
  const { text } = r.now;
  r.skip();
  switch (text) {
    case 'INTEGER':
    case 'INT':
    case 'SMALLINT':
    case 'BIGINT':
      return { type: 'integer' };
    case 'NUMERIC':
    case 'DECIMAL': {
      const [, scale] = sizes(r);
      return { type: 'number', scale: scale ?? null };
    }
    case 'DOUBLE':
      r.take('PRECISION');
      return { type: 'number', scale: null };
    case 'FLOAT':
    case 'REAL':
      return { type: 'number', scale: null };
    case 'VARCHAR':
    case 'CHAR':
    case 'CHARACTER': {
      r.take('VARYING');
      const [length] = sizes(r);
      return { type: 'text', length: length ?? null };
    }
    case 'DATE':
      return { type: 'date' };
    case 'TIME':
      return { type: 'time' };
    case 'TIMESTAMP':
      return { type: 'datetime' };
    case 'BOOLEAN':
      return { type: 'yesno' };
  }
  r.skip(-1);
  return r.fail(
    `“${r.now.raw}” is not a type.`,
    'Take INTEGER, NUMERIC, DOUBLE PRECISION, VARCHAR, DATE, TIME, TIMESTAMP or BOOLEAN.',
  );
}

/** (10, 2) behind a type; empty without. */
function sizes(r: TokenReader): number[] {
  const out: number[] = [];
  if (!r.takeSign('(')) return out;
  do {
    if (r.now.kind !== 'number' || !/^\d{1,4}$/.test(r.now.text))
      r.fail('A size must be a whole number.', 'NUMERIC(10, 2).');
    out.push(Number(r.now.text));
    r.skip();
  } while (r.takeSign(','));
  r.mustSign(')', 'NUMERIC(10, 2).');
  return out;
}

/** EXTRACT(field FROM moment). */
export function extractForm(r: TokenReader, expression: () => Ast): Ast {
  const open = r.now;
  r.skip();
  r.mustSign('(', 'EXTRACT(YEAR FROM sailed_on).');
  const field = INTERVAL_UNITS.find((u) => r.take(u));
  if (!field)
    r.fail(`“${r.now.raw}” cannot be extracted.`, 'Take YEAR, MONTH, DAY, HOUR, MINUTE or SECOND.');
  r.must('FROM', 'EXTRACT(YEAR FROM sailed_on).');
  const of = expression();
  r.mustSign(')', 'EXTRACT(YEAR FROM sailed_on).');
  return { node: 'extract', field, of, span: joined(open.span, r.before.span) };
}

/** TRIM([LEADING | TRAILING | BOTH] [characters] FROM text), or TRIM(text). */
export function trimArguments(r: TokenReader, expression: () => Ast, args: Ast[]): string {
  const side = ['LEADING', 'TRAILING', 'BOTH'].find((word) => r.take(word)) ?? 'BOTH';
  const space: Ast = { node: 'text', value: ' ', span: r.now.span };
  if (r.take('FROM')) args.push(expression(), space);
  else {
    const first = expression();
    if (r.take('FROM')) args.push(expression(), first);
    else args.push(first, space);
  }
  return `TRIM ${side}`;
}
