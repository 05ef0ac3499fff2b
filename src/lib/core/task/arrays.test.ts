import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addedUp, filled, lookedUp, numbersOf } from './arrays';
import { finish } from './task';

describe('arrays made in stretches', () => {
  it('are those made at one go', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(50), { maxLength: 300 }), (some) => {
        const places = Int32Array.from(some);
        const table = Int32Array.from({ length: 51 }, (_, k) => k * k);
        expect(finish(lookedUp(table, places))).toEqual(places.map((k) => table[k]));
        expect(finish(numbersOf(some.length, (k) => some[k] / 4))).toEqual(
          Float64Array.from(some, (v) => v / 4),
        );
        expect(finish(filled(new Float64Array(some.length), -1))).toEqual(
          new Float64Array(some.length).fill(-1),
        );
      }),
    );
  });

  it('counts become where each group begins', () => {
    const start = Int32Array.of(0, 2, 0, 3, 1);
    finish(addedUp(start));
    expect([...start]).toEqual([0, 2, 2, 5, 6]);
    const none = Int32Array.of(0);
    finish(addedUp(none));
    expect([...none]).toEqual([0]);
  });
});
