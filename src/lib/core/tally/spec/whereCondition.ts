import type { Condition } from '../../selection/condition';
import { dayOfIso } from '../../table/calendar';

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

/**
 * Tests for one text or another of the same column as one test of all of them, stretches of its days
 * that follow one another as one stretch, and numbers of records as one list of them.
 */
function valuesTogether(parts: readonly Condition[]): Condition[] {
  const out: Condition[] = [];
  const texts = new Map<string, string[]>();
  let records: number[] | null = null;
  for (const part of parts) {
    if (part.not) {
      out.push(part);
      continue;
    }
    if (part.kind === 'records') {
      if (records) for (const record of part.records) records.push(record);
      else out.push({ ...part, records: (records = [...part.records]) });
      continue;
    }
    const last = out.at(-1);
    if (part.kind === 'leaf' && part.test.test === 'is' && part.test.exact) {
      const known = texts.get(part.column);
      if (known) known.push(...part.test.values);
      else {
        const values = [...part.test.values];
        texts.set(part.column, values);
        out.push({ ...part, test: { ...part.test, values } });
      }
    } else {
      const longer = last && daysTogether(last, part);
      if (longer) out[out.length - 1] = longer;
      else out.push(part);
    }
  }
  return out;
}

/** Whole days of one column right behind others of it, as one stretch; null for whatever else. */
function daysTogether(before: Condition, after: Condition): Condition | null {
  if (before.kind !== 'leaf' || after.kind !== 'leaf') return null;
  if (before.not || before.column !== after.column) return null;
  const [a, b] = [before.test, after.test];
  if (a.test !== 'between' || b.test !== 'between') return null;
  if (!(a.fromIn && a.toIn && b.fromIn && b.toIn)) return null;
  const [end, start] = [dayOf(a.to), dayOf(b.from)];
  if (end === null || start !== end + 1) return null;
  return { ...before, test: { ...a, to: b.to } };
}

/** The day that a point of a condition is; null for numbers, times, and days with a time. */
const dayOf = (point: string | number): number | null =>
  typeof point === 'string' && /^\d{4}-\d\d-\d\d$/.test(point) ? dayOfIso(point) : null;
