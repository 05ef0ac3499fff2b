import { MEASURES, type MeasureKind } from '../measure/measure';
import { leavesOf, type Condition } from '../selection/condition';
import { isText, type Column } from '../table/column';
import { CALENDAR_PERIODS } from '../table/period';
import { kindOf } from '../tally/kind/kinds';
import { refs } from '../tally/spec/refs';
import type { Tally } from '../tally/spec/specs';
import { guessOf, WORDS_OF_KINDS } from '../tally/wish/guesses';
import { kindsIn } from '../tally/wish/wishMeasures';
import { PERIOD_WORDS } from '../tally/wish/wishPlaces';
import { SMALL_WORDS } from './smallWords';
import { sameWord, singular, type Token } from './tokens';

/** What words of a wish may have become in a tally. */
interface Said {
  readonly columnWords: ReadonlySet<string>;
  readonly measures: ReadonlySet<MeasureKind>;
  readonly periods: ReadonlySet<string>;
  readonly numbers: ReadonlySet<number>;
  /** Texts of its conditions, in small letters. */
  readonly texts: readonly string[];
  readonly conditions: readonly Condition[];
  /** Words that its kind answers, whatever its spec. */
  readonly answers: readonly string[];
  readonly spec: Readonly<Record<string, unknown>>;
}

/** Words that belong to what stands behind them: “per pot” was not understood, not “pot” alone. */
const BEFORE = new Set(['per', 'by', 'for', 'in', 'of', 'at', 'on']);

/**
 * The words of a wish that a tally does not say, as they were typed: those that stand together as one text,
 * with the small word before them.
 */
export function notUnderstood(tokens: readonly Token[], left: readonly Token[]): string[] {
  const out: string[] = [];
  tokens.forEach((token, at) => {
    if (!left.includes(token)) return;
    const before = tokens[at - 1];
    if (before && left.includes(before) && !token.afterComma)
      out[out.length - 1] += ` ${token.text}`;
    else
      out.push(
        before && BEFORE.has(before.word) && !token.afterComma
          ? `${before.text} ${token.text}`
          : token.text,
      );
  });
  return out;
}

/**
 * The words of a wish that a tally does not say: neither a column of it nor a measure, a period, a number
 * or an act of its kind, and no small word. Whoever begins the tally is told of each, in its place.
 * @param found the words that the kind of question is found by
 * @param listName of the list: its records are called so
 */
export function leftover(
  tokens: readonly Token[],
  tally: Tally,
  columns: readonly Column[],
  found: string,
  listName: string,
): Token[] {
  const said = saidBy(tally, columns);
  const kinds = new Set(found.split(' ').map(singular));
  const own = new Set(listName.toLowerCase().split(/[^\p{L}\p{N}]+/u));
  return tokens.filter((token, at) => {
    const { word } = token;
    if (SMALL_WORDS.has(word)) return false;
    if ([...own].some((name) => name !== '' && sameWord(name, word))) return false;
    return !(
      isColumn(word, said) ||
      isMeasure(tokens, at, said) ||
      isPeriod(word, said) ||
      isNumber(word, said) ||
      said.texts.some((text) => text.includes(word)) ||
      (kinds.has(singular(word)) && !ASKS.has(word) && !WORDS_OF_KINDS.has(word)) ||
      said.answers.includes(word) ||
      (ASKS.get(word)?.(said) ?? false)
    );
  });
}

function saidBy(tally: Tally, columns: readonly Column[]): Said {
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
  const { measures: given, answers = [] } = guessOf(tally.kind);
  for (const kind of given?.(tally) ?? []) measures.add(kind);
  const used = new Set(refs(tally).columns.map(({ to }) => to));
  const columnWords = new Set(
    columns
      .filter(({ id }) => used.has(id))
      .flatMap(({ name, unit }) => [...name.split(/\s+/), unit])
      .concat(conditions.flatMap((condition) => namesIn(condition, columns)))
      .map((word) => word.toLowerCase())
      .filter((word) => word !== ''),
  );
  const texts: string[] = [];
  const numbers = new Set<number>();
  const periods = new Set<string>();
  const walk = (part: unknown): void => {
    if (typeof part === 'number') {
      numbers.add(part);
      numbers.add(Number((part * 100).toPrecision(12)));
    } else if (typeof part === 'string') {
      if ((CALENDAR_PERIODS as readonly string[]).includes(part)) periods.add(part);
      texts.push(part.toLowerCase());
    } else if (Array.isArray(part)) part.forEach(walk);
    else if (typeof part === 'object' && part !== null) Object.values(part).forEach(walk);
  };
  for (const condition of conditions)
    for (const { column, test } of leavesOf(condition))
      walk(
        test.test === 'is'
          ? test.values.filter((value) =>
              isHeld(
                value,
                columns.find(({ id }) => id === column),
              ),
            )
          : test,
      );
  const ofConditions = [...texts];
  walk({ ...tally, kind: '' });
  const periodNames = texts.filter((text) => /^\d{4}(-\w+)?$/.test(text));
  const spec: Readonly<Record<string, unknown>> = { ...tally };
  return {
    columnWords,
    measures,
    periods,
    numbers,
    texts: [...ofConditions, ...periodNames],
    conditions,
    answers,
    spec,
  };
}

/** Texts that a value is looked for among; of more it is taken to be there. */
const MOST_TEXTS = 5000;

/** Whether a value that was typed is one of a column: what no record holds was not understood. */
function isHeld(value: string, column: Column | undefined): boolean {
  if (!column || !isText(column) || column.dictionary.length > MOST_TEXTS) return true;
  const said = value.trim().toLowerCase();
  return column.dictionary.some((text) => sameWord(text.trim().toLowerCase(), said));
}

const namesIn = (condition: Condition, columns: readonly Column[]): string[] =>
  [...leavesOf(condition)].flatMap(({ column }) =>
    columns.filter(({ id }) => id === column).flatMap(({ name }) => name.split(/\s+/)),
  );

const isColumn = (word: string, { columnWords }: Said): boolean =>
  [...columnWords].some(
    (own) => sameWord(own, word) || (word.length >= 4 && own.startsWith(singular(word))),
  );

/** A word of a measure that the tally has: its one word, or one of the words that name it together. */
function isMeasure(tokens: readonly Token[], at: number, { measures }: Said): boolean {
  if (kindsIn([tokens[at].word]).some((kind) => measures.has(kind))) return true;
  return [...measures].some((kind) => {
    const phrase = MEASURES[kind].words.split(' ');
    return phrase.some(
      (_, k) => at >= k && phrase.every((word, n) => tokens[at - k + n]?.word === word),
    );
  });
}

const isPeriod = (word: string, { periods }: Said): boolean => {
  const period = PERIOD_WORDS.get(word);
  return period !== undefined && periods.has(period);
};

function isNumber(word: string, { numbers }: Said): boolean {
  const plain = word.replace(/,(?=\d{3}\b)/g, '').replace('−', '-');
  const [digits] = /^-?\d+(\.\d+)?/.exec(plain) ?? [];
  return digits !== undefined && numbers.has(Number(digits));
}

const has =
  (...keys: readonly string[]) =>
  ({ spec }: Said): boolean =>
    keys.some((key) => {
      const value = spec[key];
      return Array.isArray(value) ? value.length > 0 : value !== undefined && value !== false;
    });
const either =
  (...tests: readonly ((said: Said) => boolean)[]) =>
  (said: Said): boolean =>
    tests.some((test) => test(said));
const asksUnder = ({ conditions }: Said): boolean => conditions.length > 0;

/** Words that ask for something, each with what shows that a tally does it. */
const ASKS: ReadonlyMap<string, (said: Said) => boolean> = new Map([
  ...(['first', 'top'] as const).map((word) => [word, has('top')] as const),
  ...(['bottom'] as const).map((word) => [word, has('bottom')] as const),
  ...(['next', 'ahead'] as const).map((word) => [word, has('horizon')] as const),
  ['last', either(has('bottom'), ({ measures }) => measures.has('last'))],
  ['others', has('top', 'bottom')],
  ['within', ({ spec }) => typeof spec.within === 'number' && spec.within > 0],
  [
    'each',
    either(
      ({ spec }) => typeof spec.within === 'number' && spec.within > 0,
      ({ spec }) => JSON.stringify(spec).includes('"by":[{'),
      ({ spec }) => Array.isArray(spec.groups) && spec.groups.length > 0,
      has('key', 'down'),
    ),
  ],
  ['across', has('across')],
  ['bands', ({ spec }) => JSON.stringify(spec).includes('"bands"')],
  ['band', ({ spec }) => JSON.stringify(spec).includes('"bands"')],
  ['running', either(has('running', 'toDate'), ({ measures }) => measures.has('running'))],
  ['cumulative', has('running', 'toDate', 'share')],
  ['share', either(has('shares', 'share'), ({ measures }) => measures.has('shareOfTotal'))],
  ['previous', has('against')],
  ['before', either(has('against'), asksUnder)],
  ['against', has('against', 'between')],
  ['compared', has('against', 'between')],
  ['from', has('between', 'top', 'yearStartsIn', 'series')],
  ['between', has('between')],
  ['until', has('between')],
  ['%', ({ measures }) => measures.has('percentile')],
  ['±', () => true],
  ['+/-', () => true],
  ...(
    [
      'where',
      'both',
      'neither',
      'or',
      'not',
      'least',
      'most',
      'more',
      'less',
      'fewer',
      'than',
    ] as const
  ).map((word) => [word, asksUnder] as const),
  ...(
    ['over', 'under', 'above', 'below', 'equals', '>=', '<=', '>', '<', '≥', '≤', '='] as const
  ).map((word) => [word, asksUnder] as const),
  ['where', either(asksUnder, has('ranksOf'))],
  ['largest', either(has('from'), ({ measures }) => measures.has('max'))],
  ['smallest', either(has('from'), ({ measures }) => measures.has('min'))],
  ['highest', either(has('from'), ({ measures }) => measures.has('max'))],
  ['lowest', either(has('from'), ({ measures }) => measures.has('min'))],
]);
