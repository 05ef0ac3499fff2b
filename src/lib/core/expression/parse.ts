import { ExpressionError } from '../errors';
import { INTERVAL_UNITS, type Ast, type BinaryOp, type CompareOp } from './ast';
import { type Span } from './span';
import { caseForm, castForm, extractForm, literal, trimArguments } from './forms';
import type { Token } from './lex';
import { joined, TokenReader } from './tokenReader';

/** Longer expressions, and deeper ones, are refused before they can tire anything out. */
const LONGEST = 20_000;
const DEEPEST = 200;

/** Words that cannot stand as a bare column name. */
/** Words that are no names of columns unless in double quotes. */
export const RESERVED: ReadonlySet<string> = new Set(
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
  const parser = new Parser(source);
  const ast = parser.expression();
  parser.end();
  return ast;
}

/** Recursive descent, one method for each level of precedence, loosest first. */
class Parser {
  readonly #r: TokenReader;
  #depth = 0;

  constructor(source: string) {
    this.#r = new TokenReader(source);
  }

  expression(): Ast {
    if (++this.#depth > DEEPEST)
      throw new ExpressionError(
        'The expression is nested too deep.',
        this.#r.now.span,
        'Split it into several computed columns.',
      );
    let left = this.#and();
    while (this.#r.take('OR')) {
      const right = this.#and();
      left = { node: 'or', left, right, span: joined(left.span, right.span) };
    }
    this.#depth--;
    return left;
  }

  readonly #whole = (): Ast => this.expression();

  end(): void {
    if (this.#r.now.kind !== 'end')
      this.#r.fail(
        `“${this.#r.now.raw}” was not expected here.`,
        this.#r.now.kind === 'sign'
          ? 'Check the brackets and commas before it.'
          : 'Join it to what stands before with an operator, or put a name with spaces in double quotes.',
      );
  }

  #and(): Ast {
    let left = this.#not();
    while (this.#r.take('AND')) {
      const right = this.#not();
      left = { node: 'and', left, right, span: joined(left.span, right.span) };
    }
    return left;
  }

  #not(): Ast {
    const { span } = this.#r.now;
    let negations = 0;
    while (this.#r.take('NOT')) negations++;
    let of = this.#predicate();
    for (; negations > 0; negations--) of = { node: 'not', of, span: joined(span, of.span) };
    return of;
  }

  #predicate(): Ast {
    let left = this.#sum();
    for (;;) {
      const { kind, text } = this.#r.now;
      if (kind === 'sign' && COMPARE.has(text)) {
        this.#r.skip();
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
    this.#r.skip();
    const not = this.#r.take('NOT');
    const what = ['NULL', 'TRUE', 'FALSE', 'UNKNOWN'].find((word) => this.#r.take(word));
    if (!what)
      this.#r.fail(
        `After IS comes NULL, TRUE, FALSE or UNKNOWN, not “${this.#r.now.raw}”.`,
        'To compare with a value write =.',
      );
    return {
      node: 'is',
      of,
      what: what.toLowerCase() as 'null' | 'true' | 'false' | 'unknown',
      not,
      span: joined(of.span, this.#r.before.span),
    };
  }

  #wordPredicate(of: Ast): Ast {
    const not = this.#r.take('NOT');
    const span = (): Span => joined(of.span, this.#r.before.span);
    if (this.#r.take('BETWEEN')) {
      const low = this.#sum();
      this.#r.must('AND', 'BETWEEN needs two values: a BETWEEN 1 AND 9.');
      const high = this.#sum();
      return { node: 'between', of, low, high, not, span: span() };
    }
    if (this.#r.take('IN')) {
      this.#r.mustSign('(', "IN needs a list: route IN ('Nessness', 'Holm').");
      const list = [this.#sum()];
      while (this.#r.takeSign(',')) list.push(this.#sum());
      this.#r.mustSign(')', 'Close the list with a bracket.');
      return { node: 'in', of, list, not, span: span() };
    }
    if (this.#r.take('LIKE')) {
      const pattern = this.#sum();
      const escape = this.#r.take('ESCAPE') ? this.#sum() : null;
      return { node: 'like', of, pattern, escape, not, span: span() };
    }
    return this.#r.fail(
      `After NOT comes BETWEEN, IN or LIKE here, not “${this.#r.now.raw}”.`,
      'To negate a whole condition put NOT before it.',
    );
  }

  #sum(): Ast {
    let left = this.#product();
    for (;;) {
      const op = (['+', '-', '||'] as const).find((sign) => this.#r.takeSign(sign));
      if (!op) return left;
      left = this.#binary(op, left, this.#product());
    }
  }

  #product(): Ast {
    let left = this.#signed();
    for (;;) {
      const op = (['*', '/'] as const).find((sign) => this.#r.takeSign(sign));
      if (!op) return left;
      left = this.#binary(op, left, this.#signed());
    }
  }

  #binary(op: BinaryOp, left: Ast, right: Ast): Ast {
    return { node: 'binary', op, left, right, span: joined(left.span, right.span) };
  }

  #signed(): Ast {
    const { span } = this.#r.now;
    let minus = false;
    for (;;) {
      if (this.#r.takeSign('-')) minus = !minus;
      else if (!this.#r.takeSign('+')) break;
    }
    const of = this.#primary();
    return minus ? { node: 'negate', of, span: joined(span, of.span) } : of;
  }

  #primary(): Ast {
    const token = this.#r.now;
    switch (token.kind) {
      case 'number':
        this.#r.skip();
        return { node: 'number', value: Number(token.text), span: token.span };
      case 'text':
        this.#r.skip();
        return { node: 'text', value: token.text, span: token.span };
      case 'quoted':
        this.#r.skip();
        return { node: 'column', name: token.text, quoted: true, span: token.span };
      case 'word':
        return this.#word(token);
      case 'sign':
        if (this.#r.takeSign('(')) return this.#bracket(token);
    }
    return this.#r.fail(
      token.kind === 'end'
        ? 'The expression ends too early.'
        : `“${token.raw}” was not expected here.`,
      'A value belongs here: a column, a number, a text in single quotes, or a function.',
    );
  }

  #bracket(open: Token): Ast {
    const inner = this.expression();
    this.#r.mustSign(')', 'Close the bracket.');
    const unit = INTERVAL_UNITS.find((u) => this.#r.now.kind === 'word' && this.#r.now.text === u);
    if (unit && inner.node === 'binary' && inner.op === '-') {
      this.#r.skip();
      const { left, right } = inner;
      return {
        node: 'difference',
        left,
        right,
        unit,
        span: joined(open.span, this.#r.before.span),
      };
    }
    // A fault of a name or a call is the name's or the call's own; of what has parts, the whole's.
    return inner.node === 'column' || inner.node === 'call'
      ? inner
      : { ...inner, span: joined(open.span, this.#r.before.span) };
  }

  #word(token: Token): Ast {
    const next = this.#r.behind;
    const called = next.kind === 'sign' && next.text === '(';
    switch (token.text) {
      case 'TRUE':
      case 'FALSE':
      case 'UNKNOWN':
        this.#r.skip();
        return {
          node: 'truth',
          value: token.text === 'UNKNOWN' ? null : token.text === 'TRUE',
          span: token.span,
        };
      case 'NULL':
        this.#r.skip();
        return { node: 'null', span: token.span };
      case 'CASE':
        return caseForm(this.#r, this.#whole);
      case 'CAST':
        return castForm(this.#r, this.#whole);
      case 'EXTRACT':
        return extractForm(this.#r, this.#whole);
      case 'DATE':
      case 'TIME':
      case 'TIMESTAMP':
      case 'INTERVAL':
        if (next.kind === 'text') return literal(this.#r, token, next);
    }
    if (called) return this.#call(token);
    if (RESERVED.has(token.text) && !['DATE', 'TIME'].includes(token.text))
      this.#r.fail(
        `“${token.raw}” was not expected here.`,
        `A value belongs here. A column of that name is written "${token.raw}".`,
      );
    this.#r.skip();
    return { node: 'column', name: token.raw, quoted: false, span: token.span };
  }

  /** A function; TRIM, SUBSTRING and POSITION have words between their arguments. */
  #call(token: Token): Ast {
    this.#r.skip(2);
    const args: Ast[] = [];
    let name = token.text;
    if (name === 'TRIM') name = trimArguments(this.#r, this.#whole, args);
    else if (name === 'SUBSTRING') {
      args.push(this.expression());
      this.#r.must('FROM', 'SUBSTRING(route FROM 1 FOR 3).');
      args.push(this.expression());
      if (this.#r.take('FOR')) args.push(this.expression());
    } else if (name === 'POSITION') {
      args.push(this.#sum());
      this.#r.must('IN', "POSITION('-' IN route).");
      args.push(this.#sum());
    } else if (!(this.#r.now.kind === 'sign' && this.#r.now.text === ')'))
      do args.push(this.expression());
      while (this.#r.takeSign(','));
    this.#r.mustSign(')', `Close ${token.text} with a bracket.`);
    return { node: 'call', name, args, span: joined(token.span, this.#r.before.span) };
  }
}
