import type { MeasureKind } from '../measure/measure';
import { leavesOf, type Condition } from '../selection/condition';
import { kindOf } from '../tally/kind/kinds';
import { refs } from '../tally/spec/refs';
import type { Tally } from '../tally/spec/specs';
import { guessOf } from '../tally/wish/guesses';
import type { Part, Phrase } from './phrase';
import type { Token } from './tokens';
import { SMALL_WORDS } from './words/smallWords';

/** What a tally says, to hold the parts of a wish against. */
interface Said {
  readonly kind: Tally['kind'];
  readonly columns: ReadonlySet<string>;
  readonly measures: ReadonlySet<MeasureKind>;
  readonly conditions: ReadonlySet<string>;
  readonly numbers: ReadonlySet<number>;
  readonly words: ReadonlySet<string>;
  readonly spec: Readonly<Record<string, unknown>>;
}

/**
 * The words of a wish that a tally does not say: those that no phrase took, and those of phrases whose part it does
 * not hold. Whoever begins the tally is told of each, in its place.
 */
export function unsaid(
  tokens: readonly Token[],
  phrases: readonly Phrase[],
  tally: Tally,
): Token[] {
  const said = saidBy(tally);
  const taken = new Map<Token, Phrase>();
  for (const phrase of phrases)
    for (const token of tokens.slice(phrase.from, phrase.to)) taken.set(token, phrase);
  return tokens.filter((token) => {
    const phrase = taken.get(token);
    if (phrase && isHeld(phrase.part, said)) return false;
    // Of a phrase that is not held, its small words say nothing by themselves.
    return !(SMALL_WORDS.has(token.word) && !token.quoted);
  });
}

function saidBy(tally: Tally): Said {
  const measures = new Set<MeasureKind>();
  const conditions: Condition[] = [];
  kindOf(tally).visit(
    {
      measure(measure) {
        measures.add(measure.kind);
        return measure;
      },
      condition(condition) {
        conditions.push(condition);
        return condition;
      },
    },
    '',
  );
  for (const kind of guessOf(tally.kind).measures?.(tally) ?? []) measures.add(kind);
  const numbers = new Set<number>();
  const words = new Set<string>();
  const walk = (part: unknown): void => {
    if (typeof part === 'number') {
      numbers.add(part);
      numbers.add(Number((part * 100).toPrecision(12)));
    } else if (typeof part === 'string') words.add(part.toLowerCase());
    else if (Array.isArray(part)) part.forEach(walk);
    else if (typeof part === 'object' && part !== null) Object.values(part).forEach(walk);
  };
  walk({ ...tally, kind: '' });
  const leaves = conditions.flatMap((condition) => [...leavesOf(condition)]);
  return {
    kind: tally.kind,
    columns: new Set([
      ...refs(tally).columns.map(({ to }) => to),
      ...leaves.map(({ column }) => column),
    ]),
    measures,
    conditions: new Set(conditions.map((condition) => JSON.stringify(condition))),
    numbers,
    words,
    spec: { ...tally },
  };
}

/** Whether a tally does what a part of a wish asks for. */
function isHeld(part: Part, said: Said): boolean {
  const { kind, spec, measures, numbers, words } = said;
  switch (part.is) {
    case 'column':
      return said.columns.has(part.column);
    case 'measure':
      return (
        measures.has(part.kind) ||
        (part.kind === 'running' && spec.running === true) ||
        // Both are asked for in one breath: “the total share”, and the mean of a mean is none.
        (part.kind === 'sum' && (measures.has('ratio') || measures.has('difference')))
      );
    case 'period':
      return words.has(part.period);
    case 'where':
      return [...said.conditions].some((own) => own.includes(JSON.stringify(part.condition)));
    case 'both':
    case 'neither':
      return kind === 'conditional';
    case 'count':
      return spec.top === part.count && (spec.from ?? 'highest') === part.of;
    case 'order':
      return spec.from === part.of;
    case 'ahead':
      return spec.horizon === part.count;
    case 'ends':
    case 'beside':
      return part.is === 'beside'
        ? kind === 'crosstab'
        : [part.from, part.to].every((end) => words.has(end.toLowerCase()));
    case 'percent':
    case 'stands':
      return numbers.has(part.value);
    case 'edges':
      return (
        part.edges.every((edge) => numbers.has(edge)) && (words.has('edges') || words.has('table'))
      );
    case 'table':
      return words.has('table');
    case 'width':
      return words.has('width') && numbers.has(part.width);
    case 'bands':
      return words.has('number') || kind === 'frequency';
    case 'across':
      return kind === 'crosstab';
    case 'against':
      return Array.isArray(spec.against) && spec.against.includes(part.what);
    case 'toDate':
      return spec.toDate === true;
    case 'often':
      return kind === 'frequency';
    case 'best':
      return kind === 'nested' || spec.from === 'highest';
    case 'yearStart':
      return numbers.has(part.month);
    case 'between':
      return measures.has(part.op);
    case 'asks':
      return part.kinds.includes(kind);
    case 'side':
      return kind === 'crosstab' || kind === 'reconciliation';
    case 'role':
      return (
        part.role !== 'within' ||
        kind === 'nested' ||
        (typeof spec.within === 'number' && spec.within > 0)
      );
    case 'narrow':
    case 'which':
    case 'deviation':
    case 'records':
    case 'small':
      return true;
  }
}

/** Words that belong to what stands behind them: “per pot” was not understood, not “pot” alone. */
const BEFORE = new Set(['per', 'by', 'for', 'in', 'of', 'at', 'on']);

/**
 * Words that were not understood, as they were typed: those that stand together as one text, with the small word
 * before them.
 */
export function asTexts(tokens: readonly Token[], left: readonly Token[]): string[] {
  const out: string[] = [];
  let last = -1;
  tokens.forEach((token, at) => {
    if (!left.includes(token)) return;
    const between = tokens.slice(last + 1, at + 1);
    const near =
      last >= 0 &&
      between.every(
        ({ word, afterComma }, k) =>
          !afterComma && (k === between.length - 1 || SMALL_WORDS.has(word)),
      );
    const before = tokens[at - 1];
    if (near) out[out.length - 1] += ` ${between.map(({ text }) => text).join(' ')}`;
    else
      out.push(
        before && BEFORE.has(before.word) && !token.afterComma
          ? `${before.text} ${token.text}`
          : token.text,
      );
    last = at;
  });
  return out;
}
