import { VERSION } from './version';

/*
 * Documents of earlier versions, brought to the newest one before anything looks at them. Each step
 * takes a document as its version wrote it and knows nothing of the steps behind it.
 */

type Parts = Record<string, unknown>;

const isObject = (part: unknown): part is Parts =>
  typeof part === 'object' && part !== null && !Array.isArray(part);

/** Changes every object of a document, the inner ones first. */
function eachObject(part: unknown, change: (object: Parts) => Parts): unknown {
  if (Array.isArray(part)) return part.map((inner) => eachObject(inner, change));
  if (!isObject(part)) return part;
  return change(
    Object.fromEntries(
      Object.entries(part).map(([key, inner]) => [key, eachObject(inner, change)]),
    ),
  );
}

/**
 * Documents of version 1 named a percentile measure's per cent as a share: `p: 0.9`. Since version 2
 * every percentile is named by per cent: `percent: 90`.
 */
export const percentForShares = (document: unknown): unknown =>
  eachObject(document, (part) => {
    const isMeasure = part.kind === 'percentile' || part.kind === 'trimmedMean';
    if (!isMeasure || typeof part.p !== 'number') return part;
    const { p, ...rest } = part;
    return { ...rest, percent: Number((p * 100).toPrecision(12)) };
  });

/**
 * Documents up to version 2 counted records from 0, and said what a row stands on in a form of its
 * own. Since version 3 records count from 1, and `where` is a condition.
 */
export const numbersFromOne = (document: unknown): unknown =>
  eachObject(document, (part) => {
    const out = { ...part };
    for (const key of ['records', 'kept']) if (areNumbers(part[key])) out[key] = risen(part[key]);
    if (typeof part.record === 'number' && 'was' in part) out.record = part.record + 1;
    // The inner objects went before, so that the records of a `where` have risen already.
    if (isObject(part.where) && !('kind' in part.where)) out.where = conditionFor(part.where);
    return out;
  });

const areNumbers = (part: unknown): part is number[] =>
  Array.isArray(part) && part.every((n) => typeof n === 'number');

const risen = (numbers: readonly number[]): number[] => numbers.map((n) => n + 1);

/** A `where` of version 2, its several parts all holding. */
function conditionFor(where: Parts): unknown {
  const { condition, records, any, except } = where;
  const joined = (kind: string, wheres: unknown): unknown[] =>
    Array.isArray(wheres) && wheres.length
      ? [{ kind, not: false, parts: wheres.map((w) => (isObject(w) ? conditionFor(w) : w)) }]
      : [];
  const parts = [
    ...(condition === undefined ? [] : [condition]),
    ...(records === undefined ? [] : [{ kind: 'records', not: false, records }]),
    ...joined('any', any),
    ...joined('none', except),
  ];
  return parts.length > 1 ? { kind: 'all', not: false, parts } : parts[0];
}

/**
 * Results up to version 3 named their sentences, and the words of their warnings and marks, `says`; a
 * result kept in a document is of that form. Since version 4 words are `words` wherever they stand.
 */
export const wordsForSays = (document: unknown): unknown =>
  eachObject(document, (part) => {
    if (typeof part.says !== 'string' || 'words' in part) return part;
    const { says, ...rest } = part;
    return { ...rest, words: says };
  });

/** From each version to the next, the first one first. */
const STEPS = [percentForShares, numbersFromOne, wordsForSays];

/** A document of any version as one of the newest; one that says no version is of the newest. */
export function upgraded(document: unknown): unknown {
  if (!isObject(document)) return document;
  const { version } = document;
  // What cannot be misread is brought over all the same: nobody writes a share by the key of today.
  if (version === undefined) return wordsForSays(percentForShares(document));
  const steps = Number.isInteger(version) ? STEPS.slice(Math.max(0, Number(version) - 1)) : [];
  if (steps.length === 0) return document;
  const newest = steps.reduce<unknown>((so, step) => step(so), document);
  return { ...Object(newest), version: VERSION };
}
