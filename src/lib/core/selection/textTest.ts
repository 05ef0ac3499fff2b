import { BadCondition } from '../errors';
import { NotLinear, regexTest } from '../pattern/regex';
import { wildcardTest, type Wildcard } from '../pattern/wildcard';
import type { Test } from './condition';

type TextTest = Extract<
  Test,
  { test: 'is' | 'contains' | 'startsWith' | 'endsWith' | 'pattern' | 'regex' }
>;

/** Case and accents taken off, so that "Café" and "cafe" are the same. */
export const foldText = (text: string): string =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** `*` any run, `?` one character, a backslash before one makes it literal. */
export function patternPlaces(pattern: string): Wildcard[] {
  const out: Wildcard[] = [];
  const characters = [...pattern];
  for (let i = 0; i < characters.length; i++) {
    const c = characters[i];
    if (c === '\\' && i + 1 < characters.length) out.push({ is: characters[++i] });
    else out.push(c === '*' ? 'run' : c === '?' ? 'one' : { is: c });
  }
  return out;
}

/** @throws BadCondition for one that is not well formed, or that could take for ever */
function regexOf({ text, exact }: { text: string; exact: boolean }): (text: string) => boolean {
  try {
    return regexTest(text, exact);
  } catch (error) {
    if (error instanceof NotLinear)
      throw new BadCondition(
        `“${text}” ${error.message}, which could take for ever: write it without, or use several conditions.`,
      );
    throw new BadCondition(
      `“${text}” is not a regular expression: check its brackets and backslashes.`,
    );
  }
}

/** Whether a text passes. @throws BadCondition for a regular expression that does not parse */
export function textTest(test: TextTest): (text: string) => boolean {
  const fold = test.exact ? (text: string): string => text : foldText;
  switch (test.test) {
    case 'is': {
      if (test.exact) {
        const values = new Set(test.values);
        return (text) => values.has(text);
      }
      const wanted = new Set(test.values.map((v) => fold(v).trim()));
      return (text) => wanted.has(fold(text).trim());
    }
    case 'contains': {
      const part = fold(test.text);
      return (text) => fold(text).includes(part);
    }
    case 'startsWith': {
      const part = fold(test.text);
      return (text) => fold(text).startsWith(part);
    }
    case 'endsWith': {
      const part = fold(test.text);
      return (text) => fold(text).endsWith(part);
    }
    case 'pattern': {
      const fits = wildcardTest(patternPlaces(fold(test.text)));
      return (text) => fits(fold(text));
    }
    case 'regex': {
      const found = regexOf(test);
      return (text) => found(test.exact ? text : text.normalize('NFD').replace(/\p{M}/gu, ''));
    }
  }
}
