import { ExpressionError } from '../errors';
import type { Column } from '../table/column';
import { findColumn, nearestColumn } from '../table/table';
import { agreeing, arithmetic, compare, need, oneType } from './agreeing';
import type { Ast } from './ast';
import { call } from './checkCalls';
import { capital, fail } from './checkFault';
import { isMoment, momentOf, shift } from './checkMoments';
import { conversion } from './convert';
import { likeTest } from './like';
import { parseExpression } from './parse';
import type { Typed } from './types';
import { TYPE_WORDS, type ValueType } from './valueType';
import { writeName } from './writeName';

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
        return momentOf(ast);
      case 'interval':
        return fail(
          'An interval stands only after + or − behind a date or time.',
          span,
          "sailed_on + INTERVAL '3' DAY.",
        );
      case 'column':
        return this.#column(ast);
      case 'negate':
        return arithmetic(
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
        return compare(ast.op, this.check(ast.left), this.check(ast.right), span);
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
        return call(
          ast.name,
          ast.args.map((arg) => this.check(arg)),
          span,
        );
    }
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

  #binary(ast: Extract<Ast, { node: 'binary' }>): Typed {
    const { op, span } = ast;
    if (op === '||')
      return {
        op: 'join',
        type: 'text',
        left: need(this.check(ast.left), 'text', 'Make it text: CAST(boarded AS VARCHAR).'),
        right: need(this.check(ast.right), 'text', 'Make it text: CAST(boarded AS VARCHAR).'),
        span,
      };
    if ((op === '+' || op === '-') && ast.right.node === 'interval')
      return shift(this.check(ast.left), ast.right, op === '-' ? -1 : 1, span);
    if (op === '+' && ast.left.node === 'interval')
      return shift(this.check(ast.right), ast.left, 1, span);
    const [left, right] = [this.check(ast.left), this.check(ast.right)];
    if (op === '-' && isMoment(left.type) && isMoment(right.type)) {
      if (left.type === 'time')
        fail(
          'Two times have no difference in days.',
          span,
          'Name the unit: (arrived - left_at) MINUTE.',
        );
      const [a, b] = agreeing(left, right, span);
      return { op: 'difference', type: 'number', left: a, right: b, unit: 'DAY', span };
    }
    return arithmetic(op, left, right, span);
  }

  #difference(ast: Extract<Ast, { node: 'difference' }>): Typed {
    const [left, right] = agreeing(this.check(ast.left), this.check(ast.right), ast.span);
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
    const low = compare('>=', of, this.check(ast.low), span);
    const high = compare('<=', of, this.check(ast.high), span);
    const both: Typed = { op: 'and', type: 'yesno', left: low, right: high, span };
    return ast.not ? { op: 'not', type: 'yesno', of: both, span } : both;
  }

  #in(ast: Extract<Ast, { node: 'in' }>): Typed {
    const { span } = ast;
    let of = this.check(ast.of);
    const list = ast.list.map((item) => {
      const [left, right] = agreeing(of, this.check(item), item.span);
      of = left;
      return right;
    });
    const test: Typed = { op: 'in', type: 'yesno', of, list, span };
    return ast.not ? { op: 'not', type: 'yesno', of: test, span } : test;
  }

  #like(ast: Extract<Ast, { node: 'like' }>): Typed {
    const { span } = ast;
    const remedy = 'LIKE looks into text; make it text with CAST(a AS VARCHAR).';
    const of = need(this.check(ast.of), 'text', remedy);
    const pattern = need(this.check(ast.pattern), 'text', "A pattern is text: 'N%'.");
    const escape = ast.escape
      ? need(this.check(ast.escape), 'text', "An escape is one character: '!'.")
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
    const [type, results] = oneType(
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
}
