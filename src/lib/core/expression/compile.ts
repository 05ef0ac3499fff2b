import { STRIDE, type Task } from '../task/task';
import { compareText } from '../table/collate';
import {
  finiteOnly,
  minus,
  over,
  overNumber,
  plus,
  plusNumber,
  times,
  timesNumber,
} from './arithmetic';
import {
  BLOCK,
  constant,
  each,
  eachOfTexts,
  eachText,
  inBlocks,
  view,
  type Scalars,
  type Texts,
} from './blocks';
import { liftScalars, liftTexts, scalarColumn, textColumnReader } from './columnNodes';
import { compareScalars, compareTexts, conjunction } from './comparisons';
import { liftedColumn, overDictionary } from './lift';
import { likeTest } from './like';
import { difference, extracted, shifted, type MomentType } from './moments';
import type { Typed } from './types';

/*
 * Typed expressions as loops over blocks of records. Each node fills one block at a time, so that
 * what passes between nodes stays near the processor; nothing is made from text, as the page forbids
 * that. A text expression that reads a single text column is worked out once for each distinct text.
 */

/** The scalar values of an expression that is not text. */
export function compileScalars(t: Typed): Scalars {
  const shared = liftedColumn(t);
  if (shared) return liftScalars(compileScalars(overDictionary(t, shared)), shared);
  switch (t.op) {
    case 'constant':
      return constant(t.value === null ? NaN : Number(t.value));
    case 'column':
      return scalarColumn(t.column);
    case 'arithmetic':
      return arithmetic(t, null);
    case 'compare':
      return t.left.type === 'text' || t.right.type === 'text'
        ? compareTexts(t.sign, compileTexts(t.left), compileTexts(t.right))
        : compareScalars(t.sign, compileScalars(t.left), compileScalars(t.right));
    case 'and':
    case 'or':
      return conjunction(t.op, compileScalars(t.left), compileScalars(t.right));
    case 'not':
      return each([compileScalars(t.of)], ([a], i) => 1 - a[i]);
    case 'isNull':
      return isNull(t.of);
    case 'isTruth':
      return each([compileScalars(t.of)], ([a], i) => (a[i] === t.truth ? 1 : 0));
    case 'in':
      return membership(t);
    case 'like':
      return like(t);
    case 'case':
      return caseScalars(t);
    case 'coalesce':
      return each(t.args.map(compileScalars), (args, i) => {
        for (const a of args) if (a[i] === a[i]) return a[i];
        return NaN;
      });
    case 'extreme': {
      const pick = t.side === 'greatest' ? Math.max : Math.min;
      return each(t.args.map(compileScalars), (args, i) =>
        args.reduce((m, a) => pick(m, a[i]), args[0][i]),
      );
    }
    case 'scalar': {
      const { fn } = t;
      const args = t.args.map(compileScalars);
      if (args.length === 1) return each(args, ([a], i) => fn(a[i]));
      return each(args, (all, i) => fn(...all.map((a) => a[i])));
    }
    case 'textual':
      return textual(t);
    case 'extract': {
      const type = t.of.type as MomentType;
      return each([compileScalars(t.of)], ([a], i) =>
        a[i] === a[i] ? extracted(type, a[i], t.field) : NaN,
      );
    }
    case 'shift':
      return each([compileScalars(t.of)], ([a], i) =>
        a[i] === a[i] ? shifted(t.type as MomentType, a[i], t.months, t.units) : NaN,
      );
    case 'difference': {
      const type = (t.left.type === 'null' ? t.right.type : t.left.type) as MomentType;
      return each([compileScalars(t.left), compileScalars(t.right)], ([a, b], i) =>
        a[i] === a[i] && b[i] === b[i] ? difference(type, a[i], b[i], t.unit) : NaN,
      );
    }
    case 'join':
      throw new TypeError('A joined text is no scalar.');
  }
}

/** The texts of an expression of type text (or of a bare NULL). */
export function compileTexts(t: Typed): Texts {
  const shared = liftedColumn(t);
  if (shared) return liftTexts(compileTexts(overDictionary(t, shared)), shared);
  switch (t.op) {
    case 'constant': {
      const data = new Array<string | null>(BLOCK).fill(t.value === null ? null : String(t.value));
      return { data, run: () => undefined };
    }
    case 'column':
      return textColumnReader(t.column);
    case 'join': {
      const [a, b] = [compileTexts(t.left), compileTexts(t.right)];
      return eachText([a, b], [], ([x, y]) => (x === null || y === null ? null : `${x}${y}`));
    }
    case 'case': {
      const whens = t.whens.map((w) => compileScalars(w.when));
      const thens = [...t.whens.map((w) => w.then), t.otherwise].map(compileTexts);
      return eachText(thens, whens, (texts, truths) => {
        const hit = truths.findIndex((v) => v === 1);
        return texts[hit < 0 ? texts.length - 1 : hit];
      });
    }
    case 'coalesce':
      return eachText(
        t.args.map(compileTexts),
        [],
        (texts) => texts.find((x) => x !== null) ?? null,
      );
    case 'extreme': {
      const sign = t.side === 'greatest' ? 1 : -1;
      return eachText(t.args.map(compileTexts), [], (texts) => {
        if (texts.includes(null)) return null;
        return texts.reduce((m, x) => (sign * compareText(x ?? '', m ?? '') > 0 ? x : m), texts[0]);
      });
    }
    case 'textual': {
      const read = argumentReader(t.args);
      const out = new Array<string | null>(BLOCK).fill(null);
      return {
        data: out,
        run(from, n) {
          read.run(from, n);
          for (let i = 0; i < n; i++) {
            const args = read.at(i);
            const value = args ? t.fn(...args) : null;
            out[i] = typeof value === 'string' ? value : null;
          }
        },
      };
    }
    default:
      if (t.type !== 'null') throw new TypeError(`${t.op} is no text.`);
      return { data: new Array<string | null>(BLOCK).fill(null), run: () => undefined };
  }
}

type Arithmetic = Extract<Typed, { op: 'arithmetic' }>;

/**
 * The four operations, each with a loop of its own: a shared one would call through for every value.
 * What no double holds is none. Between operations it may pass as an infinity, which +, − and × keep
 * and a ratio of it makes none; as a divisor it would give 0.
 * @param target where the values go, record by record; a block of the node's own unless given
 * @param passes whether only such an operation takes the values
 */
function arithmetic(
  { sign, left: first, right: second }: Arithmetic,
  target: Float64Array | null,
  passes = false,
): Scalars {
  const left = operand(first);
  const right = sign === '/' ? compileScalars(second) : operand(second);
  const number = second.op === 'constant' && typeof second.value === 'number' ? second.value : null;
  const loop = { '+': plus, '-': minus, '*': times, '/': over }[sign];
  const byNumber = { '+': plusNumber, '-': plusNumber, '*': timesNumber, '/': overNumber }[sign];
  const guarded = !passes && sign !== '/';
  const node: Scalars = {
    data: target ?? new Float64Array(BLOCK),
    run(from, n) {
      left.run(from, n);
      if (target) node.data = view(target, from, n);
      if (number !== null) byNumber(node.data, left.data, sign === '-' ? -number : number, n);
      else {
        right.run(from, n);
        loop(node.data, left.data, right.data, n);
      }
      if (guarded) finiteOnly(node.data, n);
    },
  };
  return node;
}

const isArithmetic = (t: Typed): t is Arithmetic =>
  t.op === 'arithmetic' && liftedColumn(t) === null;

const operand = (t: Typed): Scalars =>
  isArithmetic(t) ? arithmetic(t, null, true) : compileScalars(t);

/** Every value of an expression that is not text, put into `target`; a block at each step. */
export function* fillScalars(t: Typed, target: Float64Array): Task<void> {
  const direct = isArithmetic(t);
  const node = direct ? arithmetic(t, target) : compileScalars(t);
  for (let from = 0; from < target.length; from += BLOCK) {
    const n = Math.min(BLOCK, target.length - from);
    node.run(from, n);
    if (!direct) target.set(node.data.subarray(0, n), from);
    if (from % STRIDE === 0) yield from / target.length;
  }
}

function isNull(of: Typed): Scalars {
  if (of.type === 'text') return eachOfTexts([compileTexts(of)], ([x]) => (x === null ? 1 : 0));
  return each([compileScalars(of)], ([a], i) => (a[i] !== a[i] ? 1 : 0));
}

/** Yes where the value is in the list; unknown where it is not and the list or the value holds a none. */
function membership(t: Extract<Typed, { op: 'in' }>): Scalars {
  if (t.of.type === 'text' || t.list.some((item) => item.type === 'text'))
    return eachOfTexts([t.of, ...t.list].map(compileTexts), ([x, ...list]) =>
      x === null ? NaN : list.includes(x) ? 1 : list.includes(null) ? NaN : 0,
    );
  const constants = t.list.every((item) => item.op === 'constant');
  if (constants) {
    const values = t.list.map((item) =>
      item.op === 'constant' && item.value !== null ? Number(item.value) : NaN,
    );
    const set = new Set(values.filter((v) => v === v));
    const miss = values.some((v) => v !== v) ? NaN : 0;
    return each([compileScalars(t.of)], ([a], i) =>
      a[i] !== a[i] ? NaN : set.has(a[i]) ? 1 : miss,
    );
  }
  return each([t.of, ...t.list].map(compileScalars), ([a, ...list], i) => {
    if (a[i] !== a[i]) return NaN;
    if (list.some((b) => b[i] === a[i])) return 1;
    return list.some((b) => b[i] !== b[i]) ? NaN : 0;
  });
}

function like(t: Extract<Typed, { op: 'like' }>): Scalars {
  const parts = [t.of, t.pattern, ...(t.escape ? [t.escape] : [])].map(compileTexts);
  const tests = new Map<string, ((text: string) => boolean) | null>();
  return eachOfTexts(parts, ([text, pattern, escape]) => {
    if (text === null || pattern === null || (t.escape && escape === null)) return NaN;
    const key = `${escape ?? ''}\n${pattern}`;
    let test = tests.get(key);
    if (test === undefined) tests.set(key, (test = likeTest(pattern, escape ?? null)));
    return test === null ? NaN : test(text) ? 1 : 0;
  });
}

function caseScalars(t: Extract<Typed, { op: 'case' }>): Scalars {
  const whens = t.whens.map((w) => compileScalars(w.when));
  const thens = [...t.whens.map((w) => w.then), t.otherwise].map(compileScalars);
  const last = whens.length;
  return inBlocks([...whens, ...thens], (out, blocks, n) => {
    out.set(blocks[last + last]);
    // From the last to the first: the first that holds is written last.
    for (let k = last - 1; k >= 0; k--) choose(out, blocks[k], blocks[last + k], n);
  });
}

function choose(out: Float64Array, when: Float64Array, then: Float64Array, n: number): void {
  for (let i = 0; i < n; i++) if (when[i] === 1) out[i] = then[i];
}

function textual(t: Extract<Typed, { op: 'textual' }>): Scalars {
  const read = argumentReader(t.args);
  const out = new Float64Array(BLOCK);
  return {
    data: out,
    run(from, n) {
      read.run(from, n);
      for (let i = 0; i < n; i++) {
        const args = read.at(i);
        const value = args ? t.fn(...args) : NaN;
        out[i] = typeof value === 'number' ? value : NaN;
      }
    },
  };
}

/** Arguments of mixed types, one record at a time; null where one of them is none. */
function argumentReader(args: readonly Typed[]): {
  run(from: number, n: number): void;
  at(i: number): (string | number)[] | null;
} {
  const nodes = args.map((arg) => (arg.type === 'text' ? compileTexts(arg) : compileScalars(arg)));
  return {
    run(from, n) {
      for (const node of nodes) node.run(from, n);
    },
    at(i) {
      const out: (string | number)[] = [];
      for (const node of nodes) {
        const value = node.data[i];
        if (value === null || value !== value) return null;
        out.push(value);
      }
      return out;
    },
  };
}
