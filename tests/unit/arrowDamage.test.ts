import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readText } from '../support/demo';
import { BadArrow } from '$lib/core/errors';
import { TableAssembler } from '$lib/core/table/arrowRead';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import type { Table } from '$lib/core/table/table';

const { reading } = readText(
  'route,n,day,late,at\nHolm,1,2025-01-02,yes,10:30\nNess,,2025-01-03,no,\n,x,,,11:00\nHolm,4,2025-01-05,yes,12:15\n',
);
const { table } = reading;
const chunk = encodeChunk(table, 0);

function assembled(bytes: Uint8Array, records = table.length): Table {
  const assembler = new TableAssembler(records);
  assembler.push(bytes);
  return assembler.finish();
}

/** What a damaged chunk comes to: a table of the same shape, or a refusal; never anything else. */
function comesToATable(bytes: Uint8Array): boolean {
  try {
    const made = assembled(bytes);
    expect(made.length).toBe(table.length);
    for (const column of made.columns)
      if ('codes' in column)
        for (const code of column.codes)
          if (!(code >= -1 && code < column.dictionary.length)) throw new Error(`code ${code}`);
    return true;
  } catch (error) {
    if (error instanceof BadArrow) return false;
    throw error;
  }
}

describe('Arrow from outside', () => {
  it('is what was written', () => {
    expect(assembled(chunk)).toEqual(table);
  });

  it('is refused or read whole where a word of it is something else, and takes little room', () => {
    const room = (): number => {
      const { heapUsed, arrayBuffers } = process.memoryUsage();
      return heapUsed + arrayBuffers;
    };
    let [refused, heaviest] = [0, 0];
    for (let at = 0; at < chunk.length; at++)
      for (const word of [[0xff], [0x7f], [0x80], [1], [0xff, 0xff, 0xff, 0x7f], [0, 0, 0, 1]]) {
        const bad = chunk.slice();
        bad.set(word.slice(0, bad.length - at), at);
        const before = room();
        if (!comesToATable(bad)) refused++;
        heaviest = Math.max(heaviest, room() - before);
      }
    expect(refused).toBeGreaterThan(chunk.length);
    expect(heaviest).toBeLessThan(50e6);
  });

  it('is refused or read whole where several of its bytes are others, or it ends early', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(chunk.length - 1), fc.nat(255)), { maxLength: 6 }),
        fc.nat(chunk.length),
        (changes, length) => {
          const bad = chunk.slice(0, Math.max(length, chunk.length - length));
          for (const [at, to] of changes) if (at < bad.length) bad[at] = to;
          comesToATable(bad);
        },
      ),
      { numRuns: 1500 },
    );
  });

  it('makes no room for records that it only says it holds', () => {
    expect(() => assembled(chunk, 3)).toThrow(BadArrow);
    expect(() => assembled(new Uint8Array(0))).toThrow(BadArrow);
    expect(() => assembled(new TextEncoder().encode('route,n\nHolm,1\n'))).toThrow(BadArrow);
  });
});
