/**
 * The four operations over blocks, each with a loop of its own: a shared one would call through for
 * every value. Four values a turn, as the turn itself costs more than an operation.
 */
export type Loop = (o: Float64Array, a: Float64Array, b: Float64Array, n: number) => void;

/** What is not finite (by zero, or too large for a number) is none; v − v tells it cheapest. */
const finite = (v: number): number => (v - v === 0 ? v : NaN);

/** Makes none of what grew too large in one of the other three operations. */
export function finiteOnly(o: Float64Array, n: number): void {
  for (let i = 0; i < n; i++) o[i] = finite(o[i]);
}

export const plus: Loop = (o, a, b, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = a[i] + b[i];
    o[i + 1] = a[i + 1] + b[i + 1];
    o[i + 2] = a[i + 2] + b[i + 2];
    o[i + 3] = a[i + 3] + b[i + 3];
  }
  for (; i < n; i++) o[i] = a[i] + b[i];
};
export const minus: Loop = (o, a, b, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = a[i] - b[i];
    o[i + 1] = a[i + 1] - b[i + 1];
    o[i + 2] = a[i + 2] - b[i + 2];
    o[i + 3] = a[i + 3] - b[i + 3];
  }
  for (; i < n; i++) o[i] = a[i] - b[i];
};
export const times: Loop = (o, a, b, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = a[i] * b[i];
    o[i + 1] = a[i + 1] * b[i + 1];
    o[i + 2] = a[i + 2] * b[i + 2];
    o[i + 3] = a[i + 3] * b[i + 3];
  }
  for (; i < n; i++) o[i] = a[i] * b[i];
};
export const over: Loop = (o, a, b, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = finite(a[i] / b[i]);
    o[i + 1] = finite(a[i + 1] / b[i + 1]);
    o[i + 2] = finite(a[i + 2] / b[i + 2]);
    o[i + 3] = finite(a[i + 3] / b[i + 3]);
  }
  for (; i < n; i++) o[i] = finite(a[i] / b[i]);
};

/** The same with one number on the right. */
type LoopBy = (o: Float64Array, a: Float64Array, by: number, n: number) => void;

export const plusNumber: LoopBy = (o, a, by, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = a[i] + by;
    o[i + 1] = a[i + 1] + by;
    o[i + 2] = a[i + 2] + by;
    o[i + 3] = a[i + 3] + by;
  }
  for (; i < n; i++) o[i] = a[i] + by;
};
export const timesNumber: LoopBy = (o, a, by, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = a[i] * by;
    o[i + 1] = a[i + 1] * by;
    o[i + 2] = a[i + 2] * by;
    o[i + 3] = a[i + 3] * by;
  }
  for (; i < n; i++) o[i] = a[i] * by;
};
export const overNumber: LoopBy = (o, a, by, n) => {
  let i = 0;
  for (; i + 3 < n; i += 4) {
    o[i] = finite(a[i] / by);
    o[i + 1] = finite(a[i + 1] / by);
    o[i + 2] = finite(a[i + 2] / by);
    o[i + 3] = finite(a[i + 3] / by);
  }
  for (; i < n; i++) o[i] = finite(a[i] / by);
};
