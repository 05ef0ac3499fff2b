import { nearest } from '../table/nearest';
import { compare, need, oneType } from './agreeing';
import { fail } from './checkFault';
import { FUNCTIONS, SPECIAL } from './functions';
import type { Span } from './span';
import type { Typed } from './types';

/** A function of checked values. @throws ExpressionError where there is none of that name, or it takes others */
export function call(name: string, args: readonly Typed[], span: Span): Typed {
  if (name === 'NULLIF' && args.length === 2)
    return {
      op: 'case',
      type: args[0].type,
      whens: [
        {
          when: compare('=', args[0], args[1], span),
          then: { op: 'constant', type: args[0].type, value: null, span },
        },
      ],
      otherwise: args[0],
      span,
    };
  if (name === 'COALESCE' && args.length > 0) {
    const [type, alike] = oneType(args, 'All values of COALESCE must be of one type.');
    return { op: 'coalesce', type, args: alike, span };
  }
  if ((name === 'GREATEST' || name === 'LEAST') && args.length > 0) {
    const [type, alike] = oneType(args, `All values of ${name} must be of one type.`);
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
  if (!entry) return unknownFunction(name, args.length, span);
  const least = entry.args.length - (entry.optional ?? 0);
  if (args.length < least || args.length > entry.args.length)
    fail(
      `${shown} takes ${least === entry.args.length ? least : `${least} or ${entry.args.length}`} values, not ${args.length}.`,
      span,
      `${entry.example}.`,
    );
  const checked = args.map((arg, k) => need(arg, entry.args[k], `${entry.example}.`));
  return 'scalar' in entry
    ? { op: 'scalar', type: entry.result, fn: entry.scalar, args: checked, span }
    : { op: 'textual', type: entry.result, fn: entry.textual, args: checked, span };
}

function unknownFunction(name: string, count: number, span: Span): never {
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
