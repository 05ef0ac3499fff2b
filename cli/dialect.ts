import type { Command } from 'commander';
import { Dialect, DIALECT_CHOICES, DIALECT_PARTS, USUAL_DIALECT } from '$lib/core/write/dialect';
import { Misused } from './exit';

/** The options that say how delimited text is written. */
export interface DialectOptions {
  readonly values?: string;
  readonly delimiter?: string;
  readonly decimal?: string;
  readonly encoding?: string;
}

const SAYS: Readonly<Record<keyof Dialect, string>> = {
  values: 'how values stand in delimited text, with every digit or as shown',
  delimiter: 'between the fields of delimited text',
  decimal: 'the decimal mark of its numbers',
  encoding: 'its encoding; utf-8-marked begins with the mark of UTF-8',
};

/** A command that can write delimited text, with the options that say how. */
export const writingText = (command: Command): Command =>
  DIALECT_PARTS.reduce(
    (made, part) =>
      made.option(
        `--${part} <NAME>`,
        `${SAYS[part]}: ${DIALECT_CHOICES[part].join(', ')}; ${USUAL_DIALECT[part]} unless given`,
      ),
    command,
  );

/** How delimited text is written, from the options of a call. @throws Misused */
export function dialectOf(options: DialectOptions): Dialect {
  for (const part of DIALECT_PARTS) {
    const given = options[part];
    if (given !== undefined && !DIALECT_CHOICES[part].some((name) => name === given))
      throw new Misused(`--${part} is one of ${DIALECT_CHOICES[part].join(', ')}, not “${given}”.`);
  }
  const { values, delimiter, decimal, encoding } = options;
  return Dialect.parse({
    ...(values !== undefined && { values }),
    ...(delimiter !== undefined && { delimiter }),
    ...(decimal !== undefined && { decimal }),
    ...(encoding !== undefined && { encoding }),
  });
}
