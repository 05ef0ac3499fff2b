import { compareText } from '../table/collate';
import { each, eachOfTexts, type Scalars, type Texts } from './blocks';

const COMPARE = {
  '=': (a: number, b: number) => a === b,
  '<>': (a: number, b: number) => a !== b,
  '<': (a: number, b: number) => a < b,
  '<=': (a: number, b: number) => a <= b,
  '>': (a: number, b: number) => a > b,
  '>=': (a: number, b: number) => a >= b,
} as const;

/** Unknown where one of the two is none. */
export function compareScalars(sign: keyof typeof COMPARE, left: Scalars, right: Scalars): Scalars {
  const test = COMPARE[sign];
  return each([left, right], ([a, b], i) => {
    const [x, y] = [a[i], b[i]];
    return x !== x || y !== y ? NaN : test(x, y) ? 1 : 0;
  });
}

/** = and <> compare exactly; order follows the rules of the language. */
export function compareTexts(sign: keyof typeof COMPARE, left: Texts, right: Texts): Scalars {
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
