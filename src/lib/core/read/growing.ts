/* Columns whose number of records is not known before the last one. */

/** Float64 values that grow by doubling. */
export class GrowingValues {
  values = new Float64Array(4096);
  length = 0;

  push(value: number): void {
    if (this.length === this.values.length) {
      const wider = new Float64Array(this.length * 2);
      wider.set(this.values);
      this.values = wider;
    }
    this.values[this.length++] = value;
  }
}

/** Codes of text, growing by doubling. */
export class GrowingCodes {
  codes = new Int32Array(4096);
  length = 0;

  push(code: number): void {
    if (this.length === this.codes.length) {
      const wider = new Int32Array(this.length * 2);
      wider.set(this.codes);
      this.codes = wider;
    }
    this.codes[this.length++] = code;
  }
}
