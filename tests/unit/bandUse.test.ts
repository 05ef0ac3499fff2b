import { describe, expect, it } from 'vitest';
import { keepBands } from '$lib/core/bench/bandEdits';
import {
  followBands,
  leaveBands,
  outdatedBands,
  takeBands,
  usersOfBands,
} from '$lib/core/bench/bandUse';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { Tally } from '$lib/core/tally/spec/specs';
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
    // They are known by their name from then on.
    const [was, is] = [table(OLD), { by: 'table', name: 'Usual', bands: NEW }];
    expect(text(after, 1)).toBe(text(doc, 1).replaceAll(JSON.stringify(was), JSON.stringify(is)));
    expect(text(after, 2).split(JSON.stringify(NEW))).toHaveLength(3);
    for (const k of [0, 3, 4]) expect(after.tray[k]).toBe(doc.tray[k]);
    expect(usersOfBands(keepBands(after, 'Usual', NEW), 'Usual', NAMES)).toHaveLength(2);
    expect(followBands(doc, 'Usual', OLD, NAMES)).toBe(doc);
  });
});

describe('bands taken by their name', () => {
  const named = (of: typeof OLD): unknown => ({ by: 'table', name: 'Usual', bands: of });
  /** Two tallies with the named bands, one of them twice, and one with the same edges of its own. */
  const specs: unknown[] = [
    { kind: 'frequency', key: { column: 'Sum', bands: named(OLD) } },
    {
      kind: 'crosstab',
      down: [{ column: 'Sum', bands: named(OLD) }],
      across: [{ column: 'Sum', bands: named(OLD) }],
      measures: [{ kind: 'records' }],
    },
    { kind: 'frequency', key: { column: 'Sum', bands: table(OLD) } },
  ];
  const doc = specs.reduce<Bench>(
    (filled, spec) => addTally(filled, Tally.parse(spec)),
    newBench(small, 1),
  );
  const [now, before] = [
    { name: 'Usual', bands: NEW.map((band) => ({ ...band })) },
    { name: 'Usual', bands: OLD.map((band) => ({ ...band })) },
  ];
  const bandsIn = (of: Bench): string => JSON.stringify(of.tray.map(({ tally }) => tally));

  it('are told where they were kept otherwise since, here or in another bench', () => {
    expect(outdatedBands(doc, [before], NAMES)).toEqual([]);
    expect(outdatedBands(doc, [now, { ...now, name: 'Others' }], NAMES)).toEqual([
      { kept: now, tallies: [doc.tray[1].id, doc.tray[2].id] },
    ]);
  });

  it('are taken as they are kept now, and stay known by their name', () => {
    const taken = takeBands(doc, now, NAMES);
    expect(outdatedBands(taken, [now], NAMES)).toEqual([]);
    expect(outdatedBands(taken, [before], NAMES)[0].tallies).toHaveLength(2);
    expect(bandsIn(taken).split('"name":"Usual"')).toHaveLength(4);
    // Equal edges without the name are the tally's own.
    expect(taken.tray[3]).toBe(doc.tray[3]);
  });

  it('or left as they were: the tally’s own from then on', () => {
    const left = leaveBands(doc, now, NAMES);
    expect(bandsIn(left)).toBe(bandsIn(doc).replaceAll('"name":"Usual",', ''));
    expect(outdatedBands(left, [now], NAMES)).toEqual([]);
    expect(leaveBands(doc, before, NAMES)).toBe(doc);
  });

  it('are followed under their name when this bench keeps them anew', () => {
    const kept = keepBands(doc, 'Usual', before.bands);
    // The tally of the same edges uses them too, as it did before bands were known by name.
    expect(usersOfBands(kept, 'Usual', NAMES)).toHaveLength(3);
    const after = keepBands(followBands(kept, 'Usual', now.bands, NAMES), 'Usual', now.bands);
    expect(outdatedBands(after, after.bands, NAMES)).toEqual([]);
    expect(bandsIn(after)).not.toContain(JSON.stringify(OLD[0]));
  });
});
