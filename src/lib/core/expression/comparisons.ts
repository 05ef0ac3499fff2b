import { compareText } from '../table/collate';
import { each, eachOfTexts, inBlocks, type Scalars, type Texts } from './blocks';

const COMPARE = {
  '=': (a: number, b: number) => a === b,
  '<>': (a: number, b: number) => a !== b,
  '<': (a: number, b: number) => a < b,
  '<=': (a: number, b: number) => a <= b,
  '>': (a: number, b: number) => a > b,
  '>=': (a: number, b: number) => a >= b,
} as const;

type Sign = keyof typeof COMPARE;
type Loop = (out: Float64Array, a: Float64Array, b: Float64Array, n: number) => void;

/** Comparisons of two blocks, each with a loop of its own: a shared one would call through for every value. */
const LOOPS: Readonly<Record<'=' | '<>' | '<' | '<=', Loop>> = {
  '='(out, a, b, n) {
    for (let i = 0; i < n; i++)
      out[i] = a[i] !== a[i] || b[i] !== b[i] ? NaN : a[i] === b[i] ? 1 : 0;
  },
  '<>'(out, a, b, n) {
    for (let i = 0; i < n; i++)
      out[i] = a[i] !== a[i] || b[i] !== b[i] ? NaN : a[i] === b[i] ? 0 : 1;
  },
  '<'(out, a, b, n) {
    for (let i = 0; i < n; i++) out[i] = a[i] !== a[i] || b[i] !== b[i] ? NaN : a[i] < b[i] ? 1 : 0;
  },
  '<='(out, a, b, n) {
    for (let i = 0; i < n; i++)
      out[i] = a[i] !== a[i] || b[i] !== b[i] ? NaN : a[i] <= b[i] ? 1 : 0;
  },
};

/** Unknown where one of the two is none. */
export function compareScalars(sign: Sign, left: Scalars, right: Scalars): Scalars {
  if (sign === '>') return compareScalars('<', right, left);
  if (sign === '>=') return compareScalars('<=', right, left);
  const loop = LOOPS[sign];
  return inBlocks([left, right], (out, [a, b], n) => loop(out, a, b, n));
}

/** = and <> compare exactly; order follows the rules of the language. */
export function compareTexts(sign: Sign, left: Texts, right: Texts): Scalars {
  const test = COMPARE[sign];
  const exact = sign === '=' || sign === '<>';
  return eachOfTexts([left, right], ([a, b]) => {
    if (a === null || b === null) return NaN;
    return test(exact ? Number(a !== b) : compareText(a, b), 0) ? 1 : 0;
  });
}

/** Three-valued: no wins an AND and yes an OR, even beside the unknown. */
export function conjunction(op: 'and' | 'or', left: Scalars, right: Scalars): Scalars {
  const decides = op === 'and' ? 0 : 1;
  return each([left, right], ([a, b], i) =>
    a[i] === decides || b[i] === decides
      ? decides
      : a[i] !== a[i] || b[i] !== b[i]
        ? NaN
        : 1 - decides,
  );
}
