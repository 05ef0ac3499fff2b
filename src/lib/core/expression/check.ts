import { ExpressionError } from '../errors';
import { isUndecided, noDateFacts, readClock, readDate, readDateTime } from '../read/dates';
import { DAY_MS } from '../table/calendar';
import type { Column } from '../table/column';
import { nearest } from '../table/nearest';
import { findColumn, nearestColumn } from '../table/table';
import type { Ast } from './ast';
import { conversion } from './convert';
import { type Span } from './span';
import { FUNCTIONS, SPECIAL } from './functions';
import { likeTest } from './like';
import { UNIT_MS, type MomentType } from './moments';
import { parseExpression } from './parse';
import type { Typed } from './types';
import { writeName } from './writeName';
import { TYPE_WORDS, type ValueType } from './valueType';

/**
 * Settles columns and types, so that nothing can go wrong once it runs.
 * @throws ExpressionError at the first thing that does not fit
 */
export function checkExpression(source: string, columns: readonly Column[]): Typed {
  return new Checker(columns).check(parseExpression(source));
}

/** Checks a condition. @throws ExpressionError where the expression is no yes or no */
export function checkCondition(source: string, columns: readonly Column[]): Typed {
  const typed = checkExpression(source, columns);
  if (typed.type === 'yesno' || typed.type === 'null') return typed;
  throw new ExpressionError(
    `This is ${TYPE_WORDS[typed.type]}, not a condition.`,
    typed.span,
    'Compare it with something: boarded > 100.',
  );
}

const isMoment = (type: ValueType): type is MomentType =>
  type === 'date' || type === 'datetime' || type === 'time';

const fail = (fault: string, span: Span, remedy: string, fix: string | null = null): never => {
  throw new ExpressionError(fault, span, remedy, fix);
};

class Checker {
  constructor(readonly columns: readonly Column[]) {}

  check(ast: Ast): Typed {
    const { span } = ast;
    switch (ast.node) {
      case 'number':
        return { op: 'constant', type: 'number', value: ast.value, span };
      case 'text':
        return { op: 'constant', type: 'text', value: ast.value, span };
      case 'truth':
        return {
          op: 'constant',
          type: 'yesno',
          value: ast.value === null ? null : Number(ast.value),
          span,
        };
      case 'null':
        return { op: 'constant', type: 'null', value: null, span };
      case 'moment':
        return this.#moment(ast);
      case 'interval':
        return fail(
          'An interval stands only after + or − behind a date or time.',
          span,
          "sailed_on + INTERVAL '3' DAY.",
        );
      case 'column':
        return this.#column(ast);
      case 'negate':
        return this.#arithmetic(
          '-',
          { op: 'constant', type: 'number', value: 0, span },
          this.check(ast.of),
          span,
        );
      case 'binary':
        return this.#binary(ast);
      case 'difference':
        return this.#difference(ast);
      case 'compare':
        return this.#compare(ast.op, this.check(ast.left), this.check(ast.right), span);
      case 'not':
        return { op: 'not', type: 'yesno', of: this.#condition(ast.of), span };
      case 'and':
      case 'or':
        return {
          op: ast.node,
          type: 'yesno',
          left: this.#condition(ast.left),
          right: this.#condition(ast.right),
          span,
        };
      case 'is':
        return this.#is(ast);
      case 'between':
        return this.#between(ast);
      case 'in':
        return this.#in(ast);
      case 'like':
        return this.#like(ast);
      case 'case':
        return this.#case(ast);
      case 'cast':
        return this.#cast(ast);
      case 'extract':
        return this.#extract(ast);
      case 'call':
        return this.#call(ast);
    }
  }

  #moment({ type, text, span }: Extract<Ast, { node: 'moment' }>): Typed {
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

  #column({ name, span }: Extract<Ast, { node: 'column' }>): Typed {
    const column = findColumn(this.columns, name);
    if (column) return { op: 'column', type: column.type, column, span };
    const near = nearestColumn(this.columns, name);
    return fail(
      `There is no column “${name}”.`,
      span,
      near === null
        ? 'A text is written in single quotes, a column name with spaces in double quotes.'
        : `The nearest is “${near}”: write ${writeName(near)}.`,
      near === null ? null : writeName(near),
    );
  }

  #condition(ast: Ast): Typed {
    const typed = this.check(ast);
    if (typed.type !== 'yesno' && typed.type !== 'null')
      fail(
        `A condition belongs here, but this is ${TYPE_WORDS[typed.type]}.`,
        typed.span,
        'Compare it with something: boarded > 100.',
      );
    return typed;
  }

  #need(typed: Typed, type: ValueType, remedy: string): Typed {
    if (typed.type !== type && typed.type !== 'null')
      fail(
        `Expected ${TYPE_WORDS[type]}, but this is ${TYPE_WORDS[typed.type]}.`,
        typed.span,
        remedy,
      );
    return typed;
  }

  #binary(ast: Extract<Ast, { node: 'binary' }>): Typed {
    const { op, span } = ast;
    if (op === '||')
      return {
        op: 'join',
        type: 'text',
        left: this.#need(this.check(ast.left), 'text', 'Make it text: CAST(boarded AS VARCHAR).'),
        right: this.#need(this.check(ast.right), 'text', 'Make it text: CAST(boarded AS VARCHAR).'),
        span,
      };
    if ((op === '+' || op === '-') && ast.right.node === 'interval')
      return this.#shift(this.check(ast.left), ast.right, op === '-' ? -1 : 1, span);
    if (op === '+' && ast.left.node === 'interval')
      return this.#shift(this.check(ast.right), ast.left, 1, span);
    const [left, right] = [this.check(ast.left), this.check(ast.right)];
    if (op === '-' && isMoment(left.type) && isMoment(right.type)) {
      if (left.type === 'time')
        fail(
          'Two times have no difference in days.',
          span,
          'Name the unit: (arrived - left_at) MINUTE.',
        );
      const [a, b] = this.#alike(left, right, span);
      return { op: 'difference', type: 'number', left: a, right: b, unit: 'DAY', span };
    }
    return this.#arithmetic(op, left, right, span);
  }

  #arithmetic(sign: '+' | '-' | '*' | '/', left: Typed, right: Typed, span: Span): Typed {
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

  #shift(
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
    if (of.type === 'time' && !clock)
      fail('A time has no days.', at, 'Use HOUR, MINUTE or SECOND.');
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

  #difference(ast: Extract<Ast, { node: 'difference' }>): Typed {
    const [left, right] = this.#alike(this.check(ast.left), this.check(ast.right), ast.span);
    const { type } = left.type === 'null' ? right : left;
    if (!isMoment(type))
      return fail(
        `A difference in ${ast.unit.toLowerCase()}s needs two dates or times, but this is ${TYPE_WORDS[type]}.`,
        ast.span,
        'Leave the unit out to subtract numbers.',
      );
    if (type === 'time' && ['YEAR', 'MONTH', 'DAY'].includes(ast.unit))
      fail('Times differ by less than a day.', ast.span, 'Use HOUR, MINUTE or SECOND.');
    return { op: 'difference', type: 'number', left, right, unit: ast.unit, span: ast.span };
  }

  /** Two values of one type; a date beside a date with time counts as its midnight. */
  #alike(left: Typed, right: Typed, span: Span): [Typed, Typed] {
    if (left.type === right.type || left.type === 'null' || right.type === 'null')
      return [left, right];
    if (left.type === 'date' && right.type === 'datetime') return [this.#atMidnight(left), right];
    if (left.type === 'datetime' && right.type === 'date') return [left, this.#atMidnight(right)];
    const text = left.type === 'text' ? left : right.type === 'text' ? right : null;
    const other = text === left ? right : left;
    return fail(
      `${capital(TYPE_WORDS[left.type])} and ${TYPE_WORDS[right.type]} cannot be compared.`,
      span,
      text === null ? 'Make both of one type with CAST.' : textRemedy(text, other.type),
    );
  }

  #atMidnight(of: Typed): Typed {
    return {
      op: 'scalar',
      type: 'datetime',
      fn: (day) => day * DAY_MS,
      args: [of],
      span: of.span,
    };
  }

  #compare(sign: '=' | '<>' | '<' | '<=' | '>' | '>=', a: Typed, b: Typed, span: Span): Typed {
    const [left, right] = this.#alike(a, b, span);
    return { op: 'compare', type: 'yesno', sign, left, right, span };
  }

  #is(ast: Extract<Ast, { node: 'is' }>): Typed {
    const { span } = ast;
    const of = ast.what === 'null' ? this.check(ast.of) : this.#condition(ast.of);
    const truth = ast.what === 'true' ? 1 : ast.what === 'false' ? 0 : NaN;
    const test: Typed =
      ast.what === 'null' || ast.what === 'unknown'
        ? { op: 'isNull', type: 'yesno', of, span }
        : { op: 'isTruth', type: 'yesno', of, truth, span };
    return ast.not ? { op: 'not', type: 'yesno', of: test, span } : test;
  }

  #between(ast: Extract<Ast, { node: 'between' }>): Typed {
    const { span } = ast;
    const of = this.check(ast.of);
    const low = this.#compare('>=', of, this.check(ast.low), span);
    const high = this.#compare('<=', of, this.check(ast.high), span);
    const both: Typed = { op: 'and', type: 'yesno', left: low, right: high, span };
    return ast.not ? { op: 'not', type: 'yesno', of: both, span } : both;
  }

  #in(ast: Extract<Ast, { node: 'in' }>): Typed {
    const { span } = ast;
    let of = this.check(ast.of);
    const list = ast.list.map((item) => {
      const [left, right] = this.#alike(of, this.check(item), item.span);
      of = left;
      return right;
    });
    const test: Typed = { op: 'in', type: 'yesno', of, list, span };
    return ast.not ? { op: 'not', type: 'yesno', of: test, span } : test;
  }

  #like(ast: Extract<Ast, { node: 'like' }>): Typed {
    const { span } = ast;
    const remedy = 'LIKE looks into text; make it text with CAST(a AS VARCHAR).';
    const of = this.#need(this.check(ast.of), 'text', remedy);
    const pattern = this.#need(this.check(ast.pattern), 'text', "A pattern is text: 'N%'.");
    const escape = ast.escape
      ? this.#need(this.check(ast.escape), 'text', "An escape is one character: '!'.")
      : null;
    if (pattern.op === 'constant' && (escape === null || escape.op === 'constant')) {
      const sign = escape?.op === 'constant' ? String(escape.value) : null;
      if (likeTest(String(pattern.value), sign) === null)
        fail(
          'The escape must be one character, and stand before %, _ or itself.',
          escape?.span ?? pattern.span,
          "note LIKE '100!%' ESCAPE '!'.",
        );
    }
    const test: Typed = { op: 'like', type: 'yesno', of, pattern, escape, span };
    return ast.not ? { op: 'not', type: 'yesno', of: test, span } : test;
  }

  #case(ast: Extract<Ast, { node: 'case' }>): Typed {
    const { span } = ast;
    const whens = ast.whens.map(({ when, then }) => ({
      when: this.#condition(when),
      then: this.check(then),
    }));
    const otherwise: Typed = ast.otherwise
      ? this.check(ast.otherwise)
      : { op: 'constant', type: 'null', value: null, span };
    const [type, results] = this.#oneType(
      [...whens.map((w) => w.then), otherwise],
      'All results of a CASE must be of one type.',
    );
    return {
      op: 'case',
      type,
      whens: whens.map(({ when }, k) => ({ when, then: results[k] })),
      otherwise: results[results.length - 1],
      span,
    };
  }

  /** The type several values share. */
  #oneType(values: readonly Typed[], fault: string): [ValueType, Typed[]] {
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
    return ['datetime', values.map((v) => (v.type === 'date' ? this.#atMidnight(v) : v))];
  }

  #cast(ast: Extract<Ast, { node: 'cast' }>): Typed {
    const { span, to } = ast;
    const of = this.check(ast.of);
    const type: ValueType = to.type === 'integer' ? 'number' : to.type;
    if (of.type === 'null') return { op: 'constant', type, value: null, span };
    const made = conversion(of.type, to);
    if (!made)
      return fail(
        `${capital(TYPE_WORDS[of.type])} cannot become ${TYPE_WORDS[type]}.`,
        span,
        of.type === 'number' && type === 'yesno'
          ? 'Compare it: boarded > 0.'
          : 'Take a part of it with EXTRACT, or make it text.',
      );
    return 'scalar' in made
      ? { op: 'scalar', type, fn: made.scalar, args: [of], span }
      : { op: 'textual', type, fn: made.textual, args: [of], span };
  }

  #extract(ast: Extract<Ast, { node: 'extract' }>): Typed {
    const of = this.check(ast.of);
    if (of.type !== 'null' && !isMoment(of.type))
      fail(
        `${ast.field} is extracted from a date or time, but this is ${TYPE_WORDS[of.type]}.`,
        of.span,
        of.type === 'text'
          ? 'Read it as a date first: CAST(a AS DATE).'
          : 'Name a column of dates.',
      );
    const clock = ['HOUR', 'MINUTE', 'SECOND'].includes(ast.field);
    if ((of.type === 'date' && clock) || (of.type === 'time' && !clock))
      fail(
        `${capital(TYPE_WORDS[of.type])} has no ${ast.field.toLowerCase()}.`,
        of.span,
        of.type === 'date' ? 'Take YEAR, MONTH or DAY.' : 'Take HOUR, MINUTE or SECOND.',
      );
    return { op: 'extract', type: 'number', field: ast.field, of, span: ast.span };
  }

  #call({ name, args: given, span }: Extract<Ast, { node: 'call' }>): Typed {
    const args = given.map((arg) => this.check(arg));
    if (name === 'NULLIF' && args.length === 2)
      return {
        op: 'case',
        type: args[0].type,
        whens: [
          {
            when: this.#compare('=', args[0], args[1], span),
            then: { op: 'constant', type: args[0].type, value: null, span },
          },
        ],
        otherwise: args[0],
        span,
      };
    if (name === 'COALESCE' && args.length > 0) {
      const [type, alike] = this.#oneType(args, 'All values of COALESCE must be of one type.');
      return { op: 'coalesce', type, args: alike, span };
    }
    if ((name === 'GREATEST' || name === 'LEAST') && args.length > 0) {
      const [type, alike] = this.#oneType(args, `All values of ${name} must be of one type.`);
      return {
        op: 'extreme',
        side: name === 'GREATEST' ? 'greatest' : 'least',
        type,
        args: alike,
        span,
      };
    }
    const entry = FUNCTIONS[name];
    const shown = name.split(' ')[0];
    if (!entry) return this.#unknownFunction(name, args.length, span);
    const least = entry.args.length - (entry.optional ?? 0);
    if (args.length < least || args.length > entry.args.length)
      fail(
        `${shown} takes ${least === entry.args.length ? least : `${least} or ${entry.args.length}`} values, not ${args.length}.`,
        span,
        `${entry.example}.`,
      );
    const checked = args.map((arg, k) => this.#need(arg, entry.args[k], `${entry.example}.`));
    return 'scalar' in entry
      ? { op: 'scalar', type: entry.result, fn: entry.scalar, args: checked, span }
      : { op: 'textual', type: entry.result, fn: entry.textual, args: checked, span };
  }

  #unknownFunction(name: string, count: number, span: Span): never {
    if ((SPECIAL as readonly string[]).includes(name))
      return fail(
        `${name} cannot take ${count === 1 ? '1 value' : `${count} values`}.`,
        span,
        name === 'NULLIF' ? 'NULLIF(boarded, 0).' : `${name}(a, b).`,
      );
    const names = [...new Set(Object.keys(FUNCTIONS).map((n) => n.split(' ')[0])), ...SPECIAL];
    const near = nearest(name, names);
    return fail(
      `There is no function ${name}.`,
      span,
      near === null ? `There are ${names.join(', ')}.` : `Did you mean ${near}?`,
    );
  }
}

const capital = (words: string): string => words[0].toUpperCase() + words.slice(1);

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
