import { BadCondition } from '../errors';
import type { Test } from './condition';

type TextTest = Extract<
  Test,
  { test: 'is' | 'contains' | 'startsWith' | 'endsWith' | 'pattern' | 'regex' }
>;

/** Case and accents taken off, so that "Café" and "cafe" are the same. */
export const foldText = (text: string): string =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** `*` any run, `?` one character, a backslash before one makes it literal. */
export function patternToRegex(pattern: string): string {
  let out = '';
  for (let i = 0; i < pattern.length; i++) {
    const c = pattern[i];
    if (c === '\\' && i + 1 < pattern.length) out += literal(pattern[++i]);
    else if (c === '*') out += '[\\s\\S]*';
    else if (c === '?') out += '[\\s\\S]';
    else out += literal(c);
  }
  return `^${out}$`;
}

const literal = (c: string): string => c.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');

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
      const regex = new RegExp(patternToRegex(fold(test.text)), 'u');
      return (text) => regex.test(fold(text));
    }
    case 'regex': {
      let regex: RegExp;
      try {
        regex = new RegExp(test.text, test.exact ? 'u' : 'iu');
      } catch {
        throw new BadCondition(
          `“${test.text}” is not a regular expression: check its brackets and backslashes.`,
        );
      }
      return (text) => regex.test(test.exact ? text : text.normalize('NFD').replace(/\p{M}/gu, ''));
    }
  }
}
