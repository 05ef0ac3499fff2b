import {
  INTERVAL_UNITS,
  type Ast,
  type BinaryOp,
  type CastTarget,
  type CompareOp,
  type IntervalUnit,
} from './ast';
import { ExpressionError, type Span } from './error';
import { tokens, type Token } from './lex';

/** Longer expressions, and deeper ones, are refused before they can tire anything out. */
const LONGEST = 20_000;
const DEEPEST = 200;

/** Words that cannot stand as a bare column name. */
const RESERVED = new Set(
  'AND OR NOT IS NULL TRUE FALSE UNKNOWN BETWEEN IN LIKE ESCAPE CASE WHEN THEN ELSE END CAST AS EXTRACT FROM FOR DATE TIME TIMESTAMP INTERVAL LEADING TRAILING BOTH'.split(
    ' ',
  ),
);

const COMPARE = new Set(['=', '<>', '<', '<=', '>', '>=']);

/** Reads an expression. @throws ExpressionError at the first mistake */
export function parseExpression(source: string): Ast {
  if (source.length > LONGEST)
    throw new ExpressionError(
      `The expression has ${source.length} characters.`,
      { start: 0, end: source.length },
      `Keep it under ${LONGEST}, or split it into several computed columns.`,
    );
  const parser = new Parser(tokens(source));
  const ast = parser.expression();
  parser.end();
  return ast;
}

const joined = (a: Span, b: Span): Span => ({ start: a.start, end: b.end });

/** Recursive descent, one method for each level of precedence, loosest first. */
class Parser {
  #at = 0;
  #depth = 0;

  constructor(readonly tokens: readonly Token[]) {}

  get #now(): Token {
    return this.tokens[this.#at];
  }

  get #before(): Token {
    return this.tokens[Math.max(0, this.#at - 1)];
  }

  expression(): Ast {
    if (++this.#depth > DEEPEST)
      throw new ExpressionError(
        'The expression is nested too deep.',
        this.#now.span,
        'Split it into several computed columns.',
      );
    let left = this.#and();
    while (this.#take('OR')) {
      const right = this.#and();
      left = { node: 'or', left, right, span: joined(left.span, right.span) };
    }
    this.#depth--;
    return left;
  }

  end(): void {
    if (this.#now.kind !== 'end')
      this.#fail(
        `“${this.#now.raw}” was not expected here.`,
        this.#now.kind === 'sign'
          ? 'Check the brackets and commas before it.'
          : 'Join it to what stands before with an operator, or put a name with spaces in double quotes.',
      );
  }

  #and(): Ast {
    let left = this.#not();
    while (this.#take('AND')) {
      const right = this.#not();
      left = { node: 'and', left, right, span: joined(left.span, right.span) };
    }
    return left;
  }

  #not(): Ast {
    const { span } = this.#now;
    let negations = 0;
    while (this.#take('NOT')) negations++;
    let of = this.#predicate();
    for (; negations > 0; negations--) of = { node: 'not', of, span: joined(span, of.span) };
    return of;
  }

  #predicate(): Ast {
    let left = this.#sum();
    for (;;) {
      const { kind, text } = this.#now;
      if (kind === 'sign' && COMPARE.has(text)) {
        this.#at++;
        const right = this.#sum();
        left = {
          node: 'compare',
          op: text as CompareOp,
          left,
          right,
          span: joined(left.span, right.span),
        };
      } else if (kind === 'word' && text === 'IS') left = this.#is(left);
      else if (kind === 'word' && ['NOT', 'BETWEEN', 'IN', 'LIKE'].includes(text))
        left = this.#wordPredicate(left);
      else return left;
    }
  }

  #is(of: Ast): Ast {
    this.#at++;
    const not = this.#take('NOT');
    const what = ['NULL', 'TRUE', 'FALSE', 'UNKNOWN'].find((word) => this.#take(word));
    if (!what)
      this.#fail(
        `After IS comes NULL, TRUE, FALSE or UNKNOWN, not “${this.#now.raw}”.`,
        'To compare with a value write =.',
      );
    return {
      node: 'is',
      of,
      what: what.toLowerCase() as 'null' | 'true' | 'false' | 'unknown',
      not,
      span: joined(of.span, this.#before.span),
    };
  }

  #wordPredicate(of: Ast): Ast {
    const not = this.#take('NOT');
    const span = (): Span => joined(of.span, this.#before.span);
    if (this.#take('BETWEEN')) {
      const low = this.#sum();
      this.#must('AND', 'BETWEEN needs two values: a BETWEEN 1 AND 9.');
      const high = this.#sum();
      return { node: 'between', of, low, high, not, span: span() };
    }
    if (this.#take('IN')) {
      this.#mustSign('(', "IN needs a list: route IN ('Nessness', 'Holm').");
      const list = [this.#sum()];
      while (this.#takeSign(',')) list.push(this.#sum());
      this.#mustSign(')', 'Close the list with a bracket.');
      return { node: 'in', of, list, not, span: span() };
    }
    if (this.#take('LIKE')) {
      const pattern = this.#sum();
      const escape = this.#take('ESCAPE') ? this.#sum() : null;
      return { node: 'like', of, pattern, escape, not, span: span() };
    }
    return this.#fail(
      `After NOT comes BETWEEN, IN or LIKE here, not “${this.#now.raw}”.`,
      'To negate a whole condition put NOT before it.',
    );
  }

  #sum(): Ast {
    let left = this.#product();
    for (;;) {
      const op = (['+', '-', '||'] as const).find((sign) => this.#takeSign(sign));
      if (!op) return left;
      left = this.#binary(op, left, this.#product());
    }
  }

  #product(): Ast {
    let left = this.#signed();
    for (;;) {
      const op = (['*', '/'] as const).find((sign) => this.#takeSign(sign));
      if (!op) return left;
      left = this.#binary(op, left, this.#signed());
    }
  }

  #binary(op: BinaryOp, left: Ast, right: Ast): Ast {
    return { node: 'binary', op, left, right, span: joined(left.span, right.span) };
  }

  #signed(): Ast {
    const { span } = this.#now;
    let minus = false;
    for (;;) {
      if (this.#takeSign('-')) minus = !minus;
      else if (!this.#takeSign('+')) break;
    }
    const of = this.#primary();
    return minus ? { node: 'negate', of, span: joined(span, of.span) } : of;
  }

  #primary(): Ast {
    const token = this.#now;
    switch (token.kind) {
      case 'number':
        this.#at++;
        return { node: 'number', value: Number(token.text), span: token.span };
      case 'text':
        this.#at++;
        return { node: 'text', value: token.text, span: token.span };
      case 'quoted':
        this.#at++;
        return { node: 'column', name: token.text, quoted: true, span: token.span };
      case 'word':
        return this.#word(token);
      case 'sign':
        if (this.#takeSign('(')) return this.#bracket(token);
    }
    return this.#fail(
      token.kind === 'end'
        ? 'The expression ends too early.'
        : `“${token.raw}” was not expected here.`,
      'A value belongs here: a column, a number, a text in single quotes, or a function.',
    );
  }

  #bracket(open: Token): Ast {
    const inner = this.expression();
    this.#mustSign(')', 'Close the bracket.');
    const unit = INTERVAL_UNITS.find((u) => this.#now.kind === 'word' && this.#now.text === u);
    if (unit && inner.node === 'binary' && inner.op === '-') {
      this.#at++;
      const { left, right } = inner;
      return { node: 'difference', left, right, unit, span: joined(open.span, this.#before.span) };
    }
    return { ...inner, span: joined(open.span, this.#before.span) };
  }

  #word(token: Token): Ast {
    const next = this.tokens[this.#at + 1];
    const called = next.kind === 'sign' && next.text === '(';
    switch (token.text) {
      case 'TRUE':
      case 'FALSE':
      case 'UNKNOWN':
        this.#at++;
        return {
          node: 'truth',
          value: token.text === 'UNKNOWN' ? null : token.text === 'TRUE',
          span: token.span,
        };
      case 'NULL':
        this.#at++;
        return { node: 'null', span: token.span };
      case 'CASE':
        return this.#case(token);
      case 'CAST':
        return this.#cast(token);
      case 'EXTRACT':
        return this.#extract(token);
      case 'DATE':
      case 'TIME':
      case 'TIMESTAMP':
      case 'INTERVAL':
        if (next.kind === 'text') return this.#literal(token, next);
    }
    if (called) return this.#call(token);
    if (RESERVED.has(token.text) && !['DATE', 'TIME'].includes(token.text))
      this.#fail(
        `“${token.raw}” was not expected here.`,
        `A value belongs here. A column of that name is written "${token.raw}".`,
      );
    this.#at++;
    return { node: 'column', name: token.raw, quoted: false, span: token.span };
  }

  /** DATE '2025-01-31', TIME '08:10', TIMESTAMP '2025-01-31 08:10', INTERVAL '3' DAY. */
  #literal(word: Token, value: Token): Ast {
    this.#at += 2;
    if (word.text !== 'INTERVAL')
      return {
        node: 'moment',
        type: word.text === 'DATE' ? 'date' : word.text === 'TIME' ? 'time' : 'datetime',
        text: value.text,
        span: joined(word.span, value.span),
      };
    const unit = INTERVAL_UNITS.find((u) => this.#take(u));
    if (!unit)
      this.#fail(
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
    return { node: 'interval', count, unit, span: joined(word.span, this.#before.span) };
  }

  #case(open: Token): Ast {
    this.#at++;
    const subject =
      this.#now.text === 'WHEN' && this.#now.kind === 'word' ? null : this.expression();
    const whens: { when: Ast; then: Ast }[] = [];
    while (this.#take('WHEN')) {
      const tested = this.expression();
      this.#must('THEN', 'Each WHEN needs a THEN.');
      const then = this.expression();
      const when: Ast =
        subject === null
          ? tested
          : { node: 'compare', op: '=', left: subject, right: tested, span: tested.span };
      whens.push({ when, then });
    }
    if (whens.length === 0)
      this.#fail('A CASE needs at least one WHEN.', "CASE WHEN delay >= 10 THEN 'late' END.");
    const otherwise = this.#take('ELSE') ? this.expression() : null;
    this.#must('END', 'A CASE ends with END.');
    return { node: 'case', whens, otherwise, span: joined(open.span, this.#before.span) };
  }

  #cast(open: Token): Ast {
    this.#at++;
    this.#mustSign('(', 'CAST(a AS INTEGER).');
    const of = this.expression();
    this.#must('AS', 'CAST(a AS INTEGER).');
    const to = this.#castTarget();
    this.#mustSign(')', 'CAST(a AS INTEGER).');
    return { node: 'cast', of, to, span: joined(open.span, this.#before.span) };
  }

  #castTarget(): CastTarget {
    const { text } = this.#now;
    this.#at++;
    switch (text) {
      case 'INTEGER':
      case 'INT':
      case 'SMALLINT':
      case 'BIGINT':
        return { type: 'integer' };
      case 'NUMERIC':
      case 'DECIMAL': {
        const [, scale] = this.#sizes();
        return { type: 'number', scale: scale ?? null };
      }
      case 'DOUBLE':
        this.#take('PRECISION');
        return { type: 'number', scale: null };
      case 'FLOAT':
      case 'REAL':
        return { type: 'number', scale: null };
      case 'VARCHAR':
      case 'CHAR':
      case 'CHARACTER': {
        this.#take('VARYING');
        const [length] = this.#sizes();
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
    this.#at--;
    return this.#fail(
      `“${this.#now.raw}” is not a type.`,
      'Take INTEGER, NUMERIC, DOUBLE PRECISION, VARCHAR, DATE, TIME, TIMESTAMP or BOOLEAN.',
    );
  }

  /** (10, 2) behind a type; empty without. */
  #sizes(): number[] {
    const out: number[] = [];
    if (!this.#takeSign('(')) return out;
    do {
      if (this.#now.kind !== 'number' || !/^\d{1,4}$/.test(this.#now.text))
        this.#fail('A size must be a whole number.', 'NUMERIC(10, 2).');
      out.push(Number(this.#now.text));
      this.#at++;
    } while (this.#takeSign(','));
    this.#mustSign(')', 'NUMERIC(10, 2).');
    return out;
  }

  #extract(open: Token): Ast {
    this.#at++;
    this.#mustSign('(', 'EXTRACT(YEAR FROM sailed_on).');
    const field = INTERVAL_UNITS.find((u) => this.#take(u));
    if (!field)
      this.#fail(
        `“${this.#now.raw}” cannot be extracted.`,
        'Take YEAR, MONTH, DAY, HOUR, MINUTE or SECOND.',
      );
    this.#must('FROM', 'EXTRACT(YEAR FROM sailed_on).');
    const of = this.expression();
    this.#mustSign(')', 'EXTRACT(YEAR FROM sailed_on).');
    return { node: 'extract', field, of, span: joined(open.span, this.#before.span) };
  }

  /** A function; TRIM, SUBSTRING and POSITION have words between their arguments. */
  #call(token: Token): Ast {
    this.#at += 2;
    const args: Ast[] = [];
    let name = token.text;
    if (name === 'TRIM') name = this.#trim(args);
    else if (name === 'SUBSTRING') {
      args.push(this.expression());
      this.#must('FROM', 'SUBSTRING(route FROM 1 FOR 3).');
      args.push(this.expression());
      if (this.#take('FOR')) args.push(this.expression());
    } else if (name === 'POSITION') {
      args.push(this.#sum());
      this.#must('IN', "POSITION('-' IN route).");
      args.push(this.#sum());
    } else if (!(this.#now.kind === 'sign' && this.#now.text === ')'))
      do args.push(this.expression());
      while (this.#takeSign(','));
    this.#mustSign(')', `Close ${token.text} with a bracket.`);
    return { node: 'call', name, args, span: joined(token.span, this.#before.span) };
  }

  /** TRIM([LEADING | TRAILING | BOTH] [characters] FROM text), or TRIM(text). */
  #trim(args: Ast[]): string {
    const side = ['LEADING', 'TRAILING', 'BOTH'].find((word) => this.#take(word)) ?? 'BOTH';
    const space: Ast = { node: 'text', value: ' ', span: this.#now.span };
    if (this.#take('FROM')) args.push(this.expression(), space);
    else {
      const first = this.expression();
      if (this.#take('FROM')) args.push(this.expression(), first);
      else args.push(first, space);
    }
    return `TRIM ${side}`;
  }

  #take(word: string): boolean {
    if (this.#now.kind !== 'word' || this.#now.text !== word) return false;
    this.#at++;
    return true;
  }

  #takeSign(sign: string): boolean {
    if (this.#now.kind !== 'sign' || this.#now.text !== sign) return false;
    this.#at++;
    return true;
  }

  #must(word: string, remedy: string): void {
    if (!this.#take(word)) this.#fail(this.#expected(word), remedy);
  }

  #mustSign(sign: string, remedy: string): void {
    if (!this.#takeSign(sign)) this.#fail(this.#expected(sign), remedy);
  }

  #expected = (what: string): string =>
    this.#now.kind === 'end'
      ? `${what} was expected, but the expression ends.`
      : `${what} was expected, not “${this.#now.raw}”.`;

  #fail(fault: string, remedy: string): never {
    throw new ExpressionError(fault, this.#now.span, remedy);
  }
}

export type { IntervalUnit };
