import type { Comparison, Condition } from '../../selection/condition';

/** What a wish has to know of a column. */
export interface Named {
  readonly id: string;
  readonly name: string;
  readonly type: string;
}

/** What was typed behind “where”, and the words without it. */
export interface AskedWhere {
  readonly conditions: Condition[];
  /** Whether those that meet all of them are asked for beside each, and those that meet none. */
  readonly both: boolean;
  readonly neither: boolean;
  /** The words that are left. */
  readonly rest: string;
}

/**
 * Conditions as they are said: `where delay at least 10, where weather is gale or fog, both and neither, by route`.
 * What is no condition on one of the columns stays among the words.
 * @example conditionsIn('fares where delay >= 10', columns).rest // 'fares'
 */
export function conditionsIn(text: string, columns: readonly Named[]): AskedWhere {
  const [first, ...clauses] = text.split(/\bwhere\b/i);
  const conditions: Condition[] = [];
  let rest = first;
  let both = false;
  let neither = false;
  for (const clause of clauses) {
    // What it is by belongs to all of it.
    const [, said = '', by = ''] =
      /^(.*?)((?:[\s,]+(?:by|per|for each)\s.*)?)$/is.exec(clause) ?? [];
    let phrase = said.trim();
    for (const [word, mark] of [
      [/[\s,]*(?:\band\b\s*)?\bboth\b/i, (): boolean => (both = true)],
      [/[\s,]*(?:\band\b\s*)?\bneither\b/i, (): boolean => (neither = true)],
    ] as const)
      if (word.test(phrase)) {
        mark();
        phrase = phrase.replace(word, '').trim();
      }
    phrase = phrase.replace(/[\s,;]+(?:and)?$/i, '').replace(/\s+and$/i, '');
    const condition = phrase === '' ? null : conditionOf(phrase, columns);
    if (condition) conditions.push(condition);
    else if (phrase !== '') rest += `where${said}`;
    rest += by;
  }
  return { conditions, both, neither, rest };
}

/** A condition on one of the columns, as it is said: `delay at least 10`, `weather is gale or fog`. */
export function conditionOf(phrase: string, columns: readonly Named[]): Condition | null {
  const low = phrase.toLowerCase();
  const named = columns
    .flatMap((column) => {
      const name = column.name.toLowerCase();
      const [word] = name.split(/\s/);
      const begins = [name, ...(word.length >= 4 ? [word] : [])].find((n) => startsWith(low, n));
      return begins === undefined ? [] : [{ column, length: begins.length }];
    })
    .sort((a, b) => b.length - a.length)[0];
  if (!named) return null;
  const said = phrase.slice(named.length).trim();
  const { id, type } = named.column;
  const leaf = { kind: 'leaf', column: id, not: false } as const;
  if (type === 'number') {
    const compared = comparisonOf(said);
    return compared && { ...leaf, test: { test: 'compare', ...compared } };
  }
  if (type !== 'text' && type !== 'yesno') return null;
  const [, not = '', list = ''] = /^(?:is\s+|in\s+|=\s*)?(not\s+)?(.+)$/i.exec(said) ?? [];
  const values = list
    .split(/\s*,\s*|\s+or\s+/i)
    .map((value) => value.trim())
    .filter((value) => value !== '');
  return values.length === 0
    ? null
    : { ...leaf, not: not !== '', test: { test: 'is', values, exact: false } };
}

/** Whether words begin with a name, and the name ends there. */
const startsWith = (words: string, name: string): boolean =>
  words.startsWith(name) && !/^[\p{L}\p{N}]/u.test(words.slice(name.length));

const BEFORE: readonly (readonly [RegExp, Comparison])[] = [
  [/^(?:>=|=>|≥|at least|from)$/, 'ge'],
  [/^(?:<=|=<|≤|at most|up to)$/, 'le'],
  [/^(?:>|over|above|more than)$/, 'gt'],
  [/^(?:<|under|below|less than)$/, 'lt'],
  [/^(?:=|equals|)$/, 'eq'],
];

function comparisonOf(said: string): { op: Comparison; value: number } | null {
  const match = /^(?:is\s+|by\s+)?(.*?)\s*(-?\d+(?:\.\d+)?)\s*(.*)$/.exec(said.toLowerCase());
  if (!match) return null;
  const [, before, digits, behind] = match;
  const value = Number(digits);
  if (/\bor (?:more|over)$/.test(behind)) return before === '' ? { op: 'ge', value } : null;
  if (/\bor (?:less|fewer|under)$/.test(behind)) return before === '' ? { op: 'le', value } : null;
  // A unit may stand behind; more words are no condition of this sort.
  if (/[\s\d]/.test(behind)) return null;
  const op = BEFORE.find(([words]) => words.test(before))?.[1];
  return op ? { op, value } : null;
}
