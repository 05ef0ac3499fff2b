/** The four operations over blocks, each with a loop of its own: a shared one would call through for every value. */
export type Loop = (o: Float64Array, a: Float64Array, b: Float64Array, n: number) => void;

export const plus: Loop = (o, a, b, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] + b[i];
};
export const minus: Loop = (o, a, b, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] - b[i];
};
export const times: Loop = (o, a, b, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] * b[i];
};
/** By zero: none. */
export const over: Loop = (o, a, b, n) => {
  for (let i = 0; i < n; i++) {
    const divisor = b[i];
    o[i] = divisor === 0 ? NaN : a[i] / divisor;
  }
};

/** The same with one number on the right. */
type LoopBy = (o: Float64Array, a: Float64Array, by: number, n: number) => void;

export const plusNumber: LoopBy = (o, a, by, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] + by;
};
export const timesNumber: LoopBy = (o, a, by, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] * by;
};
export const overNumber: LoopBy = (o, a, by, n) => {
  if (by === 0) o.fill(NaN, 0, n);
  else for (let i = 0; i < n; i++) o[i] = a[i] / by;
};
