/** Products and means of logarithms, taken in stretch by stretch. */

/** A value for many values, that are taken in one stretch after the other. */
export interface Fold {
  add(values: Float64Array, from: number, to: number): void;
  /** NaN without any value. */
  readonly value: number;
}

/** All values multiplied. */
export class Product implements Fold {
  #n = 0;
  #product = 1;

  add(values: Float64Array, from: number, to: number): void {
    let product = this.#product;
    for (let i = from; i < to; i++) product *= values[i];
    this.#product = product;
    this.#n += to - from;
  }

  get value(): number {
    return this.#n ? this.#product : NaN;
  }
}

/** The nth root of the product of n values over 0, through the mean of their logarithms; else NaN. */
export class GeometricMean implements Fold {
  #n = 0;
  #logs = 0;

  add(values: Float64Array, from: number, to: number): void {
    let logs = this.#logs;
    for (let i = from; i < to; i++) logs += values[i] > 0 ? Math.log(values[i]) : NaN;
    this.#logs = logs;
    this.#n += to - from;
  }

  get value(): number {
    return this.#n ? Math.exp(this.#logs / this.#n) : NaN;
  }
}
