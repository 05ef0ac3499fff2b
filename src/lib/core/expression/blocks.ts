/**
 * Blocks of values on their way between the nodes of an expression: small enough to stay near the
 * processor, large enough that the calls between nodes cost next to nothing.
 */
export const BLOCK = 1024;

/** After `run(from, n)` the values of records from..from+n-1 stand at `data[0..n-1]`. */
export interface Scalars {
  run(from: number, n: number): void;
  data: Float64Array;
}

/** The same for texts; null: none. */
export interface Texts {
  run(from: number, n: number): void;
  data: readonly (string | null)[];
}

/** The same value for every record. */
export function constant(value: number): Scalars {
  return { data: new Float64Array(BLOCK).fill(value), run: () => undefined };
}

/**
 * A whole block at a time, from the blocks of the operands.
 * @param fill puts n values into `out`, none of them infinite
 */
export function inBlocks(
  operands: readonly Scalars[],
  fill: (out: Float64Array, blocks: readonly Float64Array[], n: number) => void,
): Scalars {
  const out = new Float64Array(BLOCK);
  const blocks: Float64Array[] = new Array(operands.length);
  return {
    data: out,
    run(from, n) {
      for (let k = 0; k < operands.length; k++) {
        const operand = operands[k];
        operand.run(from, n);
        blocks[k] = operand.data;
      }
      fill(out, blocks, n);
    },
  };
}

/** One value at a time; what no double holds is none. */
export const each = (
  operands: readonly Scalars[],
  value: (blocks: readonly Float64Array[], i: number) => number,
): Scalars =>
  inBlocks(operands, (out, blocks, n) => {
    for (let i = 0; i < n; i++) {
      const v = value(blocks, i);
      out[i] = v === Infinity || v === -Infinity ? NaN : v;
    }
  });

/** A scalar from texts, one record at a time. */
export function eachOfTexts(
  nodes: readonly Texts[],
  value: (texts: (string | null)[]) => number,
): Scalars {
  const out = new Float64Array(BLOCK);
  return {
    data: out,
    run(from, n) {
      for (const node of nodes) node.run(from, n);
      for (let i = 0; i < n; i++) out[i] = value(nodes.map((node) => node.data[i]));
    },
  };
}

/** A text from texts and scalars, one record at a time. */
export function eachText(
  nodes: readonly Texts[],
  scalars: readonly Scalars[],
  value: (texts: (string | null)[], numbers: number[]) => string | null,
): Texts {
  const out = new Array<string | null>(BLOCK).fill(null);
  return {
    data: out,
    run(from, n) {
      for (const node of nodes) node.run(from, n);
      for (const node of scalars) node.run(from, n);
      for (let i = 0; i < n; i++)
        out[i] = value(
          nodes.map((node) => node.data[i]),
          scalars.map((node) => node.data[i]),
        );
    },
  };
}

/** Values from..from+n-1 where they lie; made without the look-ups that `subarray` does for subclasses. */
export const view = (values: Float64Array, from: number, n: number): Float64Array =>
  new Float64Array(values.buffer, values.byteOffset + from * 8, n);
