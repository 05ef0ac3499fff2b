import { describe, expect, it } from 'vitest';
import { keepBands } from '$lib/core/bench/bandEdits';
import { followBands, usersOfBands } from '$lib/core/bench/bandUse';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { Tally } from '$lib/core/tally/specs';
import { small } from '../support/smallList';

const NAMES = new Map<string, string>();
const bands = (...edges: number[]): { label: string; from: number; to: number }[] =>
  edges.slice(1).map((to, k) => ({ label: `${edges[k]} to ${to}`, from: edges[k], to }));
const [OLD, NEW] = [bands(0, 5, 10), bands(0, 6, 10)];
const table = (of: typeof OLD): unknown => ({ by: 'table', bands: of });

/** A bench with bands kept under a name, used twice in one tally, once in another, and not in two. */
const bench = (): Bench => {
  const specs: unknown[] = [
    { kind: 'frequency', key: { column: 'Sum', bands: table(OLD) } },
    {
      kind: 'crosstab',
      down: [{ column: 'Sum', bands: table(OLD) }],
      across: [{ column: 'Sum', bands: table(OLD) }],
      measures: [{ kind: 'records' }],
    },
    { kind: 'frequency', key: { column: 'Sum', bands: table(bands(0, 1, 2)) } },
    { kind: 'frequency', key: { column: 'Sum' } },
  ];
  const filled = specs.reduce<Bench>(
    (doc, spec) => addTally(doc, Tally.parse(spec)),
    newBench(small, 1),
  );
  return keepBands(filled, 'Usual', OLD);
};

describe('bands kept under a name', () => {
  it('know the tallies that use them', () => {
    const doc = bench();
    const users = usersOfBands(doc, 'Usual', NAMES);
    expect(users).toEqual([doc.tray[1].id, doc.tray[2].id]);
    expect(usersOfBands(doc, 'Unknown', NAMES)).toEqual([]);
  });

  it('can be changed in all of them, and in no other', () => {
    const doc = bench();
    const after = followBands(doc, 'Usual', NEW, NAMES);
    const text = (of: Bench, k: number): string => JSON.stringify(of.tray[k].tally);
    expect(text(after, 1)).toBe(text(doc, 1).replaceAll(JSON.stringify(OLD), JSON.stringify(NEW)));
    expect(text(after, 2).split(JSON.stringify(NEW))).toHaveLength(3);
    for (const k of [0, 3, 4]) expect(after.tray[k]).toBe(doc.tray[k]);
    expect(usersOfBands(keepBands(after, 'Usual', NEW), 'Usual', NAMES)).toHaveLength(2);
    expect(followBands(doc, 'Usual', OLD, NAMES)).toBe(doc);
  });
});
