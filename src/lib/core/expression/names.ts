import type { Ast } from './ast';
import { parseExpression } from './parse';

/** Names an expression speaks of, as written: what must be there before it can be reckoned. @throws ExpressionError */
export function namesIn(source: string): Set<string> {
  const names = new Set<string>();
  gather(parseExpression(source), names);
  return names;
}

function gather(part: unknown, into: Set<string>): void {
  if (Array.isArray(part)) for (const item of part) gather(item, into);
  else if (typeof part === 'object' && part !== null) {
    if (isAst(part) && part.node === 'column') into.add(part.name);
    for (const value of Object.values(part)) gather(value, into);
  }
}

const isAst = (value: object): value is Ast => 'node' in value;
