import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DistinctNumbers } from './distinctNumbers';

const number = fc.oneof(
  fc.integer({ min: -50, max: 50 }),
  fc.double({ noNaN: true }),
  fc.integer({ min: -4, max: 4 }).map((k) => k / 100),
);

describe('distinct numbers', () => {
  it('have the places in which a map would first meet them', () => {
    fc.assert(
      fc.property(fc.array(number, { maxLength: 2000 }), (values) => {
        const met = new DistinctNumbers(values.length);
        const map = new Map<number, number>();
        for (const v of values) {
          expect(met.find(v)).toBe(map.get(v) ?? -1);
          if (!map.has(v)) map.set(v, map.size);
          expect(met.placeOf(v)).toBe(map.get(v));
          expect(met.find(v)).toBe(map.get(v));
        }
        expect(met.size).toBe(map.size);
        // Map keys have one zero as well.
        expect([...met.values()]).toEqual([...map.keys()]);
      }),
    );
  });

  it('stay where they are when there are more than the first tables hold', () => {
    const many = 100_000;
    const met = new DistinctNumbers(many);
    const places = Int32Array.from({ length: many }, (_, k) => met.placeOf(k / 100));
    expect(places.every((place, k) => place === k)).toBe(true);
    for (const k of [0, 255, 256, 257, 16_383, 16_384, 16_385, many - 1]) {
      expect(met.placeOf(k / 100)).toBe(k);
      expect(met.find(k / 100)).toBe(k);
    }
    expect(met.size).toBe(many);
    expect(met.find(-1)).toBe(-1);
  });

  it('have one zero', () => {
    const met = new DistinctNumbers(2);
    expect([met.placeOf(-0), met.placeOf(0), met.find(-0)]).toEqual([0, 0, 0]);
    expect(Object.is(met.values()[0], 0)).toBe(true);
  });

  it('refuse more than there can be, and hold what was met before', () => {
    const met = new DistinctNumbers(3);
    [7, 8, 9, 8].forEach((v) => met.placeOf(v));
    expect(() => met.placeOf(10)).toThrow(RangeError);
    expect([met.find(7), met.find(9), met.find(10)]).toEqual([0, 2, -1]);
    expect(new DistinctNumbers(0).find(1)).toBe(-1);
    expect(() => new DistinctNumbers(0).placeOf(1)).toThrow(RangeError);
  });
});
