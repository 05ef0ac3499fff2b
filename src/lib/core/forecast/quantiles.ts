/** Quantiles of the normal and the Student t distribution, for prediction intervals. */

/** Upper quantile of the standard normal (Wichura 1988, algorithm AS 241, PPND16). @param p 0..1 */
export function normalQuantile(p: number): number {
  const q = p - 0.5;
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q;
    return (q * poly(A, r)) / poly(B, r);
  }
  let r = q < 0 ? p : 1 - p;
  if (!(r > 0)) return q < 0 ? -Infinity : Infinity;
  r = Math.sqrt(-Math.log(r));
  const z = r <= 5 ? poly(C, r - 1.6) / poly(D, r - 1.6) : poly(E, r - 5) / poly(F, r - 5);
  return q < 0 ? -z : z;
}

const poly = (c: readonly number[], x: number): number => c.reduceRight((s, v) => s * x + v, 0);

const A = [
  3.387132872796366608, 133.14166789178437745, 1971.5909503065514427, 13731.693765509461125,
  45921.953931549871457, 67265.770927008700853, 33430.575583588128105, 2509.0809287301226727,
];
const B = [
  1, 42.313330701600911252, 687.1870074920579083, 5394.1960214247511077, 21213.794301586595867,
  39307.89580009271061, 28729.085735721942674, 5226.495278852545925,
];
const C = [
  1.42343711074968357734, 4.6303378461565452959, 5.7694972214606914055, 3.64784832476320460504,
  1.27045825245236838258, 0.24178072517745061177, 0.0227238449892691845833,
  7.7454501427834140764e-4,
];
const D = [
  1, 2.05319162663775882187, 1.6763848301838038494, 0.68976733498510000455, 0.14810397642748007459,
  0.0151986665636164571966, 5.475938084995344946e-4, 1.05075007164441684324e-9,
];
const E = [
  6.6579046435011037772, 5.4637849111641143699, 1.7848265399172913358, 0.29656057182850489123,
  0.026532189526576123093, 0.0012426609473880784386, 2.71155556874348757815e-5,
  2.01033439929228813265e-7,
];
const F = [
  1, 0.59983220655588793769, 0.13692988092273580531, 0.0148753612908506148525,
  7.868691311456132591e-4, 1.8463183175100546818e-5, 1.4215117583164458887e-7,
  2.04426310338993978564e-15,
];

/** Upper quantile of Student's t; the normal one for infinite degrees of freedom. NaN for none. */
export function studentQuantile(p: number, df: number): number {
  if (!(df > 0) || !(p > 0 && p < 1)) return NaN;
  if (df === Infinity) return normalQuantile(p);
  if (p < 0.5) return -studentQuantile(1 - p, df);
  let low = 0;
  let high = 2;
  while (studentCdf(high, df) < p && high < 1e12) high *= 2;
  for (let k = 0; k < 200 && high - low > 1e-15 * high; k++) {
    const mid = (low + high) / 2;
    if (studentCdf(mid, df) < p) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

/** P(T ≤ t) for t ≥ 0, through the incomplete beta function (Abramowitz and Stegun 26.7.1). */
const studentCdf = (t: number, df: number): number =>
  1 - incompleteBeta(df / (df + t * t), df / 2, 0.5) / 2;

/** Regularised incomplete beta by its continued fraction (Lentz 1976; DLMF 8.17.22). */
function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front =
    Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x)) /
    a;
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / guard(1 - ((a + b) * x) / (a + 1), tiny);
  let sum = d;
  for (let m = 1; m < 500; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / guard(1 + even * d, tiny);
    c = guard(1 + even / c, tiny);
    sum *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / guard(1 + odd * d, tiny);
    c = guard(1 + odd / c, tiny);
    sum *= d * c;
    if (Math.abs(d * c - 1) < 1e-16) break;
  }
  return front * sum;
}

const guard = (v: number, tiny: number): number => (Math.abs(v) < tiny ? tiny : v);

/** Lanczos (1964), g = 7, nine terms; relative error under 1e-15 for x > 0. */
function logGamma(x: number): number {
  const z = x - 1;
  const sum = LANCZOS.slice(1).reduce((s, c, k) => s + c / (z + k + 1), LANCZOS[0]);
  const t = z + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
  -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6,
  1.5056327351493116e-7,
];
