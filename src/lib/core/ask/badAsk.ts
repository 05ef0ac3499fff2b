import { BadAsk } from '../errors';
import { z } from 'zod';
import { nearest } from '../table/nearest';
import type { Fault } from '../tally/spec/fault';
import { Ask } from './ask';
import { isDeeperThan, MOST_DEEP } from './depth';
import { knownKeys } from './knownKeys';
import { upgraded } from './upgrade';

/** The document as an ask. @throws BadAsk naming every fault by its path */
export function readAsk(document: unknown): Ask {
  if (isDeeperThan(document, MOST_DEEP))
    throw new BadAsk([
      {
        path: '',
        message: `Its parts lie more than ${MOST_DEEP} deep in one another.`,
        remedy:
          'Take apart what is nested in it: several tallies, or several conditions side by side.',
      },
    ]);
  const newest = upgraded(document);
  const parsed = Ask.safeParse(newest, { reportInput: true });
  if (parsed.success) return parsed.data;
  throw new BadAsk(parsed.error.issues.flatMap((issue) => faultsOf(issue, [], newest)));
}

/** What to do about a key that means nothing at its place. */
function leftOut(key: string, known: ReadonlySet<string>): string {
  const near = nearest(key, known);
  if (near !== null) return `Did you mean “${near}”?`;
  return known.size ? `Leave it out, or take one of ${[...known].join(', ')}.` : 'Leave it out.';
}

/** `tallies[0].measures[1].kind` */
const pathText = (path: readonly PropertyKey[]): string =>
  path
    .map((part, k) => (typeof part === 'number' ? `[${part}]` : `${k ? '.' : ''}${String(part)}`))
    .join('');

type Issue = z.core.$ZodIssue;

function faultsOf(issue: Issue, above: readonly PropertyKey[], document: unknown): Fault[] {
  const parts = [...above, ...issue.path];
  const path = pathText(parts);
  switch (issue.code) {
    case 'unrecognized_keys':
      return issue.keys.map((key) => ({
        path: pathText([...parts, key]),
        message: `“${key}” means nothing here.`,
        remedy: leftOut(key, knownKeys(Ask, document, parts)),
      }));
    case 'invalid_value':
      return [
        {
          path,
          message:
            issue.input === undefined
              ? 'This is missing.'
              : `${shown(issue.input)} is not possible here.`,
          remedy: choice(issue.input, issue.values.map(String)),
        },
      ];
    case 'invalid_type':
      return [
        {
          path,
          message:
            issue.input === undefined
              ? 'This is missing.'
              : `Expected ${ARTICLE[issue.expected] ?? issue.expected}, not ${shown(issue.input)}.`,
          remedy:
            issue.input === undefined
              ? `Give ${ARTICLE[issue.expected] ?? issue.expected}.`
              : 'Look up its form with “tally schema”.',
        },
      ];
    case 'invalid_union':
      return unionFaults(issue, parts, document);
    default:
      return [{ path, message: `${issue.message}.`, remedy: limits(issue) }];
  }
}

const ARTICLE: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
};

const shown = (input: unknown): string => {
  if (input === undefined) return 'nothing';
  const text = JSON.stringify(input) ?? String(input);
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
};

function choice(input: unknown, values: readonly string[]): string {
  const near = typeof input === 'string' ? nearest(input, values) : null;
  if (near !== null) return `Did you mean “${near}”?`;
  return values.length === 1 ? `Take ${values[0]}.` : `Take one of ${values.join(', ')}.`;
}

/** An unknown kind names the kinds; otherwise the branch that came nearest is reported. */
function unionFaults(
  issue: Extract<Issue, { code: 'invalid_union' }>,
  parts: PropertyKey[],
  document: unknown,
): Fault[] {
  const branches = issue.errors.filter((errors) => errors.length > 0);
  if (branches.length > 0) {
    const depth = (errors: readonly Issue[]): number =>
      Math.max(
        ...errors.map(
          (e) => e.path.length + (e.code === 'invalid_value' && e.path.length === 1 ? -1 : 0),
        ),
      );
    const wrongKind = (errors: readonly Issue[]): boolean =>
      errors.some(
        (e) =>
          e.code === 'invalid_value' && ['kind', 'test', 'by', 'do'].includes(String(e.path[0])),
      );
    const fitting = branches.filter((errors) => !wrongKind(errors));
    const [best] = (fitting.length ? fitting : branches).toSorted((a, b) => depth(b) - depth(a));
    return best.flatMap((inner) => faultsOf(inner, parts, document));
  }
  const input =
    'discriminator' in issue && typeof issue.input === 'object' && issue.input !== null
      ? (Object.entries(issue.input).find(([key]) => key === issue.discriminator)?.[1] as unknown)
      : issue.input;
  const options =
    'options' in issue && Array.isArray(issue.options) ? issue.options.map(String) : [];
  return [
    {
      path: pathText(parts),
      message: input === undefined ? 'This is missing.' : `${shown(input)} is not possible here.`,
      remedy: options.length ? choice(input, options) : 'Look up its form with “tally schema”.',
    },
  ];
}

function limits(issue: Issue): string {
  switch (issue.code) {
    case 'too_small':
      return `The least is ${String(issue.minimum)}.`;
    case 'too_big':
      return `The most is ${String(issue.maximum)}.`;
    case 'invalid_format':
      return issue.format === 'date'
        ? 'Write it as 2025-01-31.'
        : 'Look up its form with “tally schema”.';
    default:
      return 'Look up its form with “tally schema”.';
  }
}
