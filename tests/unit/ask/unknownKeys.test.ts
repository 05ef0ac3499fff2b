import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAsk } from '$lib/core/ask/badAsk';
import { storedBench, upgradeBench } from '$lib/core/bench/upgrade';
import { BadAsk } from '$lib/core/errors';
import { newBench } from '$lib/core/bench/newBench';
import { Recipe } from '$lib/core/read/recipe';
import { readText } from '../../support/demo';

const { recipe, reading } = readText('route,n,day\nHolm,1,2025-01-02\nNess,2,2025-01-03\n');

const late = { kind: 'leaf', column: 'n', test: { test: 'compare', op: 'ge', value: 1 } };
const calendar = { yearStartsIn: 4 };
const key = {
  column: 'n',
  calendar,
  order: { by: 'hand', labels: ['1'] },
  bands: { by: 'table', bands: [{ from: 0, to: 10 }] },
};
const series = { column: 'day', period: 'month', measure: { kind: 'sum', column: 'n' }, calendar };

/** An ask with an object of every sort in it. */
const ASK = {
  corrections: [{ record: 1, column: 'n', text: '3', was: '1' }],
  ladder: {
    rungs: [
      { condition: { kind: 'all', parts: [late, { kind: 'expression', expression: 'n > 1' }] } },
      { condition: { kind: 'leaf', column: 'day', test: { test: 'last', k: 3, period: 'month' } } },
    ],
    setAside: { records: [1], values: [{ column: 'route', value: 'Ness' }] },
  },
  computed: [
    { name: 'x', expression: 'n * 2' },
    { name: 'y', across: { columns: ['n'], measure: 'sum' } },
  ],
  sort: [{ column: 'n' }],
  tallies: [
    { kind: 'ledger', groups: [key], measures: [{ kind: 'percentile', column: 'n', percent: 90 }] },
    {
      kind: 'crosstab',
      down: [key],
      across: [{ column: 'route' }],
      measures: [{ kind: 'records' }],
    },
    {
      kind: 'conditional',
      rows: [{ name: 'late', condition: late }],
      columns: [{ name: 'n', measure: { kind: 'sum', column: 'n' }, condition: late }],
    },
    { kind: 'frequency', key: { column: 'n', bands: { by: 'edges', edges: [0, 1] } } },
    {
      kind: 'periods',
      column: 'day',
      levels: ['year'],
      measures: [{ kind: 'records' }],
      moving: { k: 3, place: 'trailing' },
      index: { base: '2025-01-01' },
      calendar,
    },
    { kind: 'growth', series },
    { kind: 'forecast', series, parameters: { alpha: 0.5 } },
  ],
};

/** Paths of every object of a document. */
function objectsOf(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (Array.isArray(value)) return value.flatMap((v, k) => objectsOf(v, [...path, k]));
  if (typeof value !== 'object' || value === null) return [];
  return [path, ...Object.entries(value).flatMap(([k, v]) => objectsOf(v, [...path, k]))];
}

function withKey(document: unknown, path: readonly (string | number)[], name: string): unknown {
  const copy: unknown = structuredClone(document);
  let at: unknown = copy;
  for (const part of path) at = (at as Record<string | number, unknown>)[part];
  (at as Record<string, unknown>)[name] = 1;
  return copy;
}

const pathText = (path: readonly (string | number)[]): string =>
  path.map((p, k) => (typeof p === 'number' ? `[${p}]` : `${k ? '.' : ''}${p}`)).join('');

describe('no key is passed over in silence', () => {
  it('anywhere in an ask: its path is named', () => {
    readAsk(ASK);
    const places = objectsOf(ASK);
    expect(places.length).toBeGreaterThan(40);
    for (const path of places) {
      try {
        readAsk(withKey(ASK, path, 'zzqx'));
      } catch (error) {
        if (!(error instanceof BadAsk)) throw error;
        expect(error.faults.map((f) => f.path)).toContain(pathText([...path, 'zzqx']));
        continue;
      }
      throw new Error(`passed over at ${pathText(path) || 'the top'}`);
    }
  });

  it.each<[string, (string | number)[], string, string]>([
    ['a calendar', ['tallies', 4, 'calendar'], 'yearStartIn', 'Did you mean “yearStartsIn”?'],
    ['a condition', ['ladder', 'rungs', 0, 'condition', 'parts', 0], 'nott', 'Did you mean “not”?'],
    ['a test', ['ladder', 'rungs', 1, 'condition', 'test'], 'periods', 'Did you mean “period”?'],
    ['bands', ['tallies', 0, 'groups', 0, 'bands', 'bands', 0], 'form', 'Did you mean “from”?'],
    ['the top', [], 'talies', 'Did you mean “tallies”?'],
  ])('the nearest key of %s is named', (_, path, name, remedy) => {
    try {
      readAsk(withKey(ASK, path, name));
    } catch (error) {
      if (!(error instanceof BadAsk)) throw error;
      expect(error.faults).toContainEqual({
        path: pathText([...path, name]),
        message: `“${name}” means nothing here.`,
        remedy,
      });
      return;
    }
    throw new Error('passed over');
  });

  it('nor anywhere in a bench or a recipe', () => {
    const bench = {
      ...newBench(reading.table, 1),
      ladder: { rungs: [{ id: 'r', on: true, condition: late }], setAside: {} },
      corrections: ASK.corrections,
    };
    for (const [document, parse] of [
      [bench, upgradeBench],
      [recipe, (d: unknown) => Recipe.parse(d)],
    ] as const) {
      parse(document);
      const places = objectsOf(document).filter(
        // Formats and lists are kept by names that the analyst gives.
        (path) => !['formats', 'lists', 'orders'].includes(String(path.at(-1))),
      );
      fc.assert(
        fc.property(fc.constantFrom(...places), (path) => {
          expect(() => parse(withKey(document, path, 'zzqx')), pathText(path)).toThrow();
        }),
        { numRuns: 200 },
      );
    }
  });

  it('but a stored bench with a key of an earlier build opens without it', () => {
    const bench = {
      ...newBench(reading.table, 1),
      ladder: { rungs: [{ id: 'r', condition: late }] },
    };
    const older = withKey(
      withKey(bench, [], 'zoom'),
      ['ladder', 'rungs', 0, 'condition', 'test'],
      'old',
    );
    expect(() => upgradeBench(older)).toThrow();
    expect(storedBench(older)).toEqual(upgradeBench(bench));
    expect(() => storedBench({ ...bench, lead: 7 })).toThrow();
  });
});
