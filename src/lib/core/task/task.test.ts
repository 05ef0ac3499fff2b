import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { finish, inStretches, partOf, pausing, type Task } from './task';

/** What a generator told at its pauses, and what came of it. */
function driven<T>(steps: Task<T>): { told: (number | undefined)[]; value: T } {
  const told: (number | undefined)[] = [];
  for (;;) {
    const next = steps.next();
    if (next.done) return { told, value: next.value };
    told.push(next.value);
  }
}

describe('a loop in stretches', () => {
  it('comes to every place once, in order, and pauses after each stretch', () => {
    fc.assert(
      fc.property(fc.nat(5000), fc.integer({ min: 1, max: 700 }), (length, stride) => {
        const seen: number[] = [];
        const sizes: number[] = [];
        const { told } = driven(
          inStretches(
            length,
            (from, to) => {
              for (let k = from; k < to; k++) seen.push(k);
              sizes.push(to - from);
            },
            stride,
          ),
        );
        expect(seen).toEqual(Array.from({ length }, (_, k) => k));
        expect(told).toHaveLength(sizes.length);
        expect(Math.max(0, ...sizes)).toBeLessThanOrEqual(stride);
      }),
      { numRuns: 100 },
    );
  });

  it('begins with short stretches and doubles them', () => {
    const sizes: number[] = [];
    finish(inStretches(1000, (from, to) => sizes.push(to - from), 320));
    expect(sizes).toEqual([10, 20, 40, 80, 160, 320, 320, 50]);
  });

  it('has nothing to do of nothing', () => {
    expect(driven(inStretches(0, () => expect.unreachable())).told).toEqual([]);
  });
});

describe('pauses of uneven turns', () => {
  it('are due sooner at first, then once a stride', () => {
    const due = pausing(160);
    const at: number[] = [];
    for (let done = 0; done <= 600; done += 5) if (due(done)) at.push(done);
    expect(at).toEqual([5, 15, 35, 75, 155, 315, 475]);
  });

  it('are due once after a turn that took much', () => {
    const due = pausing(160);
    expect([due(1000), due(1001), due(1009), due(1010)]).toEqual([true, false, false, true]);
  });
});

describe('work that takes longer than it should', () => {
  afterEach(() => vi.restoreAllMocks());

  /** A clock that goes on by what each piece of work is said to take. */
  function clock() {
    const at = { ms: 0 };
    vi.spyOn(performance, 'now').mockImplementation(() => at.ms);
    return at;
  }

  it('has shorter stretches, and longer ones again once it is quicker', () => {
    const now = clock();
    const sizes: number[] = [];
    const each = (from: number): number => (from < 150 ? 0.5 : 0.01);
    finish(
      inStretches(
        800,
        (from, to) => {
          sizes.push(to - from);
          now.ms += (to - from) * each(from);
        },
        320,
      ),
    );
    // 2.5 ms are enough for five, then for 250; from the ten of the first stretch on.
    expect(sizes.slice(0, 4)).toEqual([10, 5, 5, 5]);
    expect(sizes.slice(-4, -1)).toEqual([80, 160, 250]);
  });

  it('pauses between uneven turns as soon as a stretch has likely taken enough', () => {
    const now = clock();
    const due = pausing(320);
    const at: number[] = [];
    for (let done = 1; done <= 40; done++) {
      now.ms += 0.5;
      if (due(done)) {
        at.push(done);
        now.ms += 1000; // How long the pause lasts is not the work's doing.
      }
    }
    expect(at).toEqual([10, 15, 22, 28, 34, 40]);
  });
});

describe('a part of longer work', () => {
  it('tells its shares within those of the whole, and keeps silent where it knows none', () => {
    function* half(): Task<string> {
      yield 0;
      yield undefined;
      yield 0.5;
      yield 1;
      return 'done';
    }
    expect(driven(partOf(half(), 0.2, 0.6))).toEqual({
      told: [0.2, undefined, 0.4, 0.6],
      value: 'done',
    });
  });
});
