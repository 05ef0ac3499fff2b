import { fitLine } from '../../../measure/line';

/** Days to the year where growth is asked between two dates. */
export const DAYS_IN_YEAR = 365.25;

/** Why no compound rate follows from these ends; null where one does. */
export function refusal(v0: number, vk: number, k: number): string | null {
  if (!(k > 0)) return 'There is no interval between the first and the last value.';
  if (v0 !== v0 || vk !== vk) return 'The first or the last value is none.';
  if (!(v0 > 0))
    return `The first value is ${v0 === 0 ? '0' : 'below 0'}: nothing grows from there at a rate.`;
  if (!(vk > 0)) return `The last value is ${vk === 0 ? '0' : 'below 0'}: no rate leads there.`;
  return null;
}

/** (vk/v0)^(1/k) − 1 over k intervals; NaN where it is refused. */
export const compoundRate = (v0: number, vk: number, k: number): number =>
  refusal(v0, vk, k) === null ? (vk / v0) ** (1 / k) - 1 : NaN;

/** A rate per period as one per year. */
export const perYear = (rate: number, periodsInYear: number): number =>
  (1 + rate) ** periodsInYear - 1;

/** (b − a) ÷ |a| from each value to the next; NaN where a is 0 or either is none. */
export const periodRates = (values: ArrayLike<number>): number[] =>
  Array.from({ length: Math.max(0, values.length - 1) }, (_, k) =>
    values[k] === 0 ? NaN : (values[k + 1] - values[k]) / Math.abs(values[k]),
  );

/** The rate of the line fitted to ln y; NaN unless every value is over 0. */
export function fittedRate(values: ArrayLike<number>): number {
  const logs = Array.from(values, (v) => (v > 0 ? Math.log(v) : NaN));
  if (logs.some((v) => v !== v)) return NaN;
  const line = fitLine(
    logs.map((_, k) => k),
    logs,
  );
  return line ? Math.exp(line.slope) - 1 : NaN;
}
