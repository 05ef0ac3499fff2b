import type { Condition, Leaf } from '../scope/condition';

/** One condition for all of these; null where there is none: everything. */
export const allOf = (parts: readonly (Condition | undefined)[]): Condition | null =>
  joined(
    'all',
    parts.flatMap((part) => part ?? []),
  );

/** One condition for any of these, the values of one column in one test. @param parts at least one */
export const anyOf = (parts: readonly Condition[]): Condition =>
  joined('any', valuesTogether(parts)) ?? parts[0];

/** All but these, records without a value among them; null where there is nothing to leave out. */
export const noneOf = (parts: readonly Condition[]): Condition | null =>
  parts.length ? { kind: 'none', not: false, parts: valuesTogether(parts) } : null;

const joined = (kind: 'all' | 'any', parts: readonly Condition[]): Condition | null =>
  parts.length > 1 ? { kind, not: false, parts: [...parts] } : (parts[0] ?? null);

/** Tests for one text or another of the same column as one test of all of them. */
function valuesTogether(parts: readonly Condition[]): Condition[] {
  const out: Condition[] = [];
  const byColumn = new Map<string, Leaf>();
  for (const part of parts) {
    if (part.kind !== 'leaf' || part.not || part.test.test !== 'is' || !part.test.exact) {
      out.push(part);
      continue;
    }
    const known = byColumn.get(part.column);
    if (known?.test.test === 'is') known.test.values.push(...part.test.values);
    else {
      const leaf: Leaf = { ...part, test: { ...part.test, values: [...part.test.values] } };
      byColumn.set(part.column, leaf);
      out.push(leaf);
    }
  }
  return out;
}
