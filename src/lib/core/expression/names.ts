import type { Ast } from './ast';
import { parseExpression } from './parse';
import { expressionIn } from './reference';

/** Names an expression speaks of, as written: what must be there before it can be computed. @throws ExpressionError */
export function namesIn(source: string): Set<string> {
  const names = new Set<string>();
  gather(parseExpression(source), names);
  return names;
}

/** The same; a faulty expression speaks of none: its own check names the fault. */
export function namesOrNone(source: string): string[] {
  try {
    return [...namesIn(source)];
  } catch {
    return [];
  }
}

/** The columns that a reference speaks of: itself, or those of its expression. */
export function spokenOf(ref: string): string[] {
  const source = expressionIn(ref);
  return source === null ? [ref] : namesOrNone(source);
}

function gather(part: unknown, into: Set<string>): void {
  if (Array.isArray(part)) for (const item of part) gather(item, into);
  else if (typeof part === 'object' && part !== null) {
    if (isAst(part) && part.node === 'column') into.add(part.name);
    for (const value of Object.values(part)) gather(value, into);
  }
}

const isAst = (value: object): value is Ast => 'node' in value;
