import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { plainSentence, slotsOf, type Slot } from '$lib/core/tally/sentence/sentence';
import { sentenceOf } from '$lib/core/tally/sentence/sentences';
import { Tally } from '$lib/core/tally/spec/specs';

const names = new Map([
  ['a', 'Delay'],
  ['r', 'Route'],
  ['d', 'Sailed on'],
  ['v', 'Vessel'],
  ['f', 'Fares taken'],
]);
const SUM = { kind: 'sum', column: 'f' } as const;
const SERIES = { column: 'd', period: 'month', measure: SUM } as const;
const LATE = {
  kind: 'leaf',
  column: 'a',
  not: false,
  test: { test: 'compare', op: 'ge', value: 10 },
} as const;
const LEDGER = { kind: 'ledger', groups: [{ column: 'r' }], measures: [SUM] } as const;

/** Specs of each kind that together show every place it has. */
const SPECS: Record<Tally['kind'], readonly unknown[]> = {
  ledger: [{ ...LEDGER, sort: [{ column: 'f' }] }],
  crosstab: [
    { kind: 'crosstab', down: [{ column: 'r' }], across: [{ column: 'v' }], measures: [SUM] },
  ],
  conditional: [
    {
      kind: 'conditional',
      rows: [{ name: 'late', condition: LATE }],
      columns: [{ measure: SUM, condition: LATE, name: 'of those late' }],
    },
    { kind: 'conditional', key: { column: 'r' }, columns: [{ measure: SUM }] },
  ],
  frequency: [
    { kind: 'frequency', key: { column: 'a', bands: { by: 'width', width: 5 } }, measures: [SUM] },
  ],
  spread: [{ kind: 'spread', columns: ['a'], key: { column: 'r' } }],
  percentile: [{ kind: 'percentile', column: 'a', key: { column: 'r' }, ranksOf: [20] }],
  ranking: [
    {
      kind: 'ranking',
      groups: [{ column: 'r' }, { column: 'v' }],
      within: 1,
      by: SUM,
      top: 3,
      change: { column: 'd', period: 'year' },
    },
    {
      kind: 'ranking',
      by: { kind: 'sum', column: 'a' },
      bottom: 3,
      show: ['r'],
      change: { column: 'd', period: 'year', match: ['v'] },
    },
  ],
  periods: [
    {
      kind: 'periods',
      column: 'd',
      levels: ['year', 'month'],
      measures: [SUM],
      moving: { k: 3 },
      index: { base: '2024-01-01' },
      by: [{ column: 'r' }],
    },
  ],
  growth: [
    { kind: 'growth', series: SERIES },
    { kind: 'growth', values: { first: 100, last: 121, intervals: 2 } },
    {
      kind: 'growth',
      values: { first: 100, last: 121, firstDate: '2024-01-01', lastDate: '2026-01-01' },
    },
  ],
  forecast: [{ kind: 'forecast', series: { ...SERIES, by: [{ column: 'r' }] } }],
  line: [
    { kind: 'line', x: 'a', y: 'f', by: [{ column: 'r' }], at: [10, 20] },
    { kind: 'line', series: SERIES },
  ],
  contributions: [
    {
      kind: 'contributions',
      measure: SUM,
      by: [{ column: 'v' }],
      between: { of: 'periods', column: 'd', period: 'year', from: '2024', to: '2025' },
    },
    {
      kind: 'contributions',
      measure: SUM,
      by: [{ column: 'v' }],
      between: { of: 'groups', key: { column: 'r' }, from: 'Ness', to: 'Holm' },
    },
    {
      kind: 'contributions',
      measure: SUM,
      by: [{ column: 'v' }],
      between: { of: 'readings', with: 'before' },
    },
  ],
  nested: [{ kind: 'nested', inner: LEDGER, outer: LEDGER }],
  comparison: [
    { kind: 'comparison', with: 'before', tally: LEDGER, match: ['d'] },
    { kind: 'comparison', with: 'before', to: 'later', tally: LEDGER, match: ['d'] },
  ],
  reconciliation: [
    {
      kind: 'reconciliation',
      with: 'Targets',
      measure: { kind: 'sum', column: 'f' },
      by: [{ column: 'r' }, { column: 'd', period: 'year' }],
      against: { kind: 'mean', column: 'Target' },
      meets: ['Line', 'Day'],
      tolerance: { in: 'percent', most: 2.5 },
      apart: true,
      order: 'label',
      scope: 'all',
    },
  ],
};

/** Options that have no place in the sentence, and why. */
const ELSEWHERE: Readonly<Record<string, string>> = {
  kind: 'it is what the tally is',
  title: 'it is the name in the tray',
};

/** Places whose own menu sets all of what lies below them. */
const WHOLE = /^(key|by|groups|down|across|sort|measures|measure|against|condition|columns|rows)$/;

/** Every option of a schema as a path without places of lists: `series.period`. */
function options(schema: unknown, path = ''): string[] {
  if (
    schema instanceof z.ZodDefault ||
    schema instanceof z.ZodOptional ||
    schema instanceof z.ZodNullable
  )
    return options(schema.unwrap(), path);
  if (!(schema instanceof z.ZodObject)) return [path];
  return Object.entries(schema.shape).flatMap(([key, inner]) => {
    const at = path ? `${path}.${key}` : key;
    return WHOLE.test(key) ? [at] : options(inner, at);
  });
}

const withoutPlaces = (path: string): string => path.replace(/\[\d+\]/g, '');

/** Whether a slot is the control of an option: at it, or at something of it. */
const controls = (slot: Slot<unknown>, option: string): boolean => {
  const at = withoutPlaces(slot.path);
  return at === option || at.startsWith(`${option}.`);
};

describe('the sentence of every kind', () => {
  for (const schema of Tally.options) {
    const kind = schema.shape.kind.value;
    it(`${kind}: every option of the spec has its place`, () => {
      const specs = SPECS[kind].map((s) => Tally.parse(s));
      const slots = specs.flatMap((spec) => slotsOf(sentenceOf(spec, names, 'Sailings')));
      const missing = options(schema)
        .filter((option) => !(option in ELSEWHERE))
        .filter((option) => !slots.some((slot) => controls(slot, option)));
      expect(missing).toEqual([]);
    });

    it(`${kind}: no two words stand for the same place`, () => {
      for (const spec of SPECS[kind]) {
        const parts = sentenceOf(Tally.parse(spec), names, 'Sailings');
        const paths = parts.flatMap((part) => (typeof part === 'string' ? [] : [part.path]));
        expect(paths).toEqual([...new Set(paths)]);
      }
    });

    it(`${kind}: whatever a place is set to is a spec of its kind`, () => {
      for (const spec of SPECS[kind]) {
        const tally = Tally.parse(spec);
        for (const slot of slotsOf(sentenceOf(tally, names, 'Sailings'))) {
          const next = changed(slot);
          if (next === null) continue;
          expect(() => Tally.parse(next), slot.path).not.toThrow();
          expect(Tally.parse(next).kind).toBe(kind);
          expect(JSON.stringify(next), `${slot.path} changes nothing`).not.toBe(
            JSON.stringify(tally),
          );
        }
      }
    });
  }

  it('walks options to the last level', () => {
    const forecast = Tally.options.find((o) => o.shape.kind.value === 'forecast');
    expect(options(forecast)).toEqual(
      expect.arrayContaining(['series.calendar.yearStartsIn', 'parameters.phi', 'holdOut']),
    );
  });

  it('keys move among themselves and to the other side; none is lost, and orders follow', () => {
    const [r, v, d, a] = ['r', 'v', 'd', 'a'].map((column) => ({ column }));
    const spec = Tally.parse({
      kind: 'crosstab',
      down: [r, v],
      across: [d],
      measures: [SUM],
    });
    /** By word and where it goes: the columns down and across that it comes to. */
    const moved = (tally: Tally): string[] =>
      slotsOf(sentenceOf(tally, names, 'Sailings')).flatMap((slot) =>
        (slot.moves ?? []).map((move) => {
          const next = Tally.parse(move.set());
          if (next.kind !== 'crosstab') throw new Error('another kind');
          const side = (keys: typeof next.down): string => keys.map((k) => k.column).join('');
          return `${slot.path} ${move.words}: ${side(next.down)}|${side(next.across)}`;
        }),
      );
    expect(moved(spec)).toEqual([
      'down[0] Put behind Vessel: vr|d',
      'down[0] Move across, before Sailed on: v|rd',
      'down[0] Move across, behind all: v|dr',
      'down[1] Put before Route: vr|d',
      'down[1] Move across, before Sailed on: r|vd',
      'down[1] Move across, behind all: r|dv',
      'across[0] Exchange with Route: dv|r',
      'across[0] Exchange with Vessel: rd|v',
    ]);
    const full = Tally.parse({ ...spec, across: [d, a, { column: 'f' }, { column: 'w' }] });
    expect(moved(full).filter((move) => move.startsWith('down[0] Exchange'))).toHaveLength(4);
    const ordered = Tally.parse({
      ...LEDGER,
      measures: [SUM, { kind: 'records' }],
      groups: [{ column: 'r', order: { by: 'measure', measure: 0, descending: true } }],
    });
    const [behind] =
      slotsOf(sentenceOf(ordered, names, 'Sailings')).find(({ path }) => path === 'measures[0]')
        ?.moves ?? [];
    expect(behind.set()).toMatchObject({
      measures: [{ kind: 'records' }, SUM],
      groups: [{ order: { measure: 1 } }],
    });
  });

  it('reads as a sentence, without its empty places', () => {
    const words = (spec: unknown): string =>
      plainSentence(sentenceOf(Tally.parse(spec), names, 'Sailings'));
    expect(words(SPECS.frequency[0])).toBe(
      'How often Delay falls in bands 5 wide, with sum of Fares taken.',
    );
    expect(words(SPECS.nested[0])).toBe(
      'First, sum of Fares taken for each Route; then, of those results: sum of Fares taken for each Route.',
    );
    // The name of a list keeps its capital within another sentence; a word of ours does not.
    expect(words(SPECS.comparison[0])).toContain(
      'What moved since before up to this reading, in: Sailings grouped by Route',
    );
    expect(words({ ...LEDGER, scope: 'all' })).toContain('Sailings (all records) grouped by Route');
    expect(words({ kind: 'percentile', column: 'a', scope: 'all' })).toContain(
      ', from all records',
    );
  });

  it('folds a long run of measures; each stays a place', () => {
    const measures = Array.from({ length: 12 }, (_, k) => ({ kind: 'sum', column: `k${k}` }));
    const parts = sentenceOf(Tally.parse({ kind: 'ledger', measures }), names, 'Kiosks');
    expect(plainSentence(parts)).toContain('sum of k2, sum of k3 and 8 more.');
    const paths = slotsOf(parts).map((slot) => slot.path);
    for (let k = 0; k < 12; k++) expect(paths).toContain(`measures[${k}]`);
  });

  it('names the measures of an inner tally by their words', () => {
    const nested = Tally.parse({
      kind: 'nested',
      inner: LEDGER,
      outer: { kind: 'ledger', measures: [{ kind: 'atMax', column: 'm1', other: 'Route' }] },
    });
    const words = plainSentence(sentenceOf(nested, names, 'Sailings'));
    expect(words).toContain('Route at the highest sum of Fares taken');
    expect(words).not.toContain('m1');
  });
});

/** The spec with something else at a place; null where nothing else is known to stand there. */
function changed({ takes }: Slot<Tally>): Tally | null {
  switch (takes.a) {
    case 'key':
      return takes.set({ column: 'w', loose: false, order: { by: 'label', descending: false } });
    case 'sort':
      return takes.set({ column: 'w', descending: true, blanks: 'last' });
    case 'measure':
      return takes.set({ kind: 'mean', column: 'a' });
    case 'column':
      return takes.set('w');
    case 'number':
      return takes.set(takes.value === 3 ? 4 : Math.min(3, takes.most / 2));
    case 'numbers':
      return takes.set([33]);
    case 'choice':
      return takes.set(takes.choices.find((c) => c.value !== takes.value)?.value ?? takes.value);
    case 'several':
      return takes.set(
        takes.value.length > takes.least
          ? takes.value.slice(1)
          : takes.choices.map((choice) => choice.value),
      );
    case 'condition':
      return takes.set({ ...LATE, not: true }, 'in time');
    case 'bands':
      return takes.set({ by: 'edges', edges: [0, 1] });
    case 'date':
      return takes.set('2025-02-01');
    case 'text':
    case 'label':
    case 'list':
      return takes.set('other');
    case 'act':
      return takes.set();
    case 'more':
      return null;
  }
}
