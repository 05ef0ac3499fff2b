import { describe, expect, it } from 'vitest';
import type { Measure } from '$lib/core/measure/measure';
import type { Condition } from '$lib/core/selection/condition';
import { finish } from '$lib/core/task/task';
import { namesOf } from '$lib/core/table/table';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally, kindOf } from '$lib/core/tally/kind/kinds';
import { productOf } from '$lib/core/tally/kinds/conditional/product';
import { slotsOf } from '$lib/core/tally/sentence/sentence';
import { Tally } from '$lib/core/tally/spec/specs';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { headOf } from '$lib/engine/handlers/tables';
import { headSpans, shownColumns } from '$lib/ui/tally/columns';

const table = {
  length: 4,
  columns: [
    textColumn('Route', ['Ness', 'Ness', 'Skerry', 'Skerry'], 'route'),
    textColumn('Weather', ['calm', 'gale', 'calm', 'gale'], 'weather'),
    scalarColumn('Fares', 'number', [10, 20, 30, 40], { id: 'fares', unit: '£' }),
    scalarColumn('Delay', 'number', [1, 15, 2, 30], { id: 'delay', unit: 'min' }),
  ],
};
const SUM: Measure = { kind: 'sum', column: 'fares' };
const MEAN: Measure = { kind: 'mean', column: 'delay' };
const late: Condition = {
  kind: 'leaf',
  column: 'delay',
  not: false,
  test: { test: 'compare', op: 'ge', value: 10 },
};
const gale: Condition = {
  kind: 'leaf',
  column: 'weather',
  not: false,
  test: { test: 'is', values: ['gale'], exact: false },
};

const headsOf = (spec: object) => {
  const tally = Tally.parse(spec);
  const { tables } = finish(computeTally(wholeInput(table), tally));
  const { figures } = shownColumns(finish(headOf(tally, tables[0], namesOf(table))));
  return { figures, spans: headSpans(figures) };
};
const words = (spec: object): [string, string][] =>
  headsOf(spec).figures.map(({ words, sub }) => [words, sub]);

describe('what several columns have in common', () => {
  it('a condition stands over the figures that are asked under it', () => {
    const spec = {
      kind: 'conditional',
      key: { column: 'route' },
      columns: [late, gale].flatMap((condition) =>
        [{ kind: 'records' }, SUM, MEAN].map((measure) => ({ measure, condition })),
      ),
    };
    expect(headsOf(spec).spans).toEqual([
      { words: 'Delay is at least 10', columns: 3 },
      { words: 'Weather is gale', columns: 3 },
    ]);
    expect(words(spec).slice(0, 3)).toEqual([
      ['Count of records', ''],
      ['Fares', 'sum, £'],
      ['Delay', 'mean, min'],
    ]);
  });

  it('a condition of one figure is said in its own head', () => {
    const spec = {
      kind: 'conditional',
      key: { column: 'route' },
      columns: [{ measure: SUM }, { measure: SUM, condition: late }],
    };
    expect(headsOf(spec).spans).toEqual([]);
    expect(words(spec)).toEqual([
      ['Fares', 'sum, £'],
      ['Delay is at least 10', 'sum of Fares, £'],
    ]);
  });

  it('a group across stands over its measures; where it has one alone, it is its head', () => {
    const cross = {
      kind: 'crosstab',
      down: [{ column: 'route' }],
      across: [{ column: 'weather' }],
    };
    expect(headsOf({ ...cross, measures: [SUM, MEAN] }).spans).toEqual([
      { words: 'Calm', columns: 2 },
      { words: 'Gale', columns: 2 },
      { words: 'All', columns: 2 },
    ]);
    const one = headsOf({ ...cross, measures: [SUM] });
    expect(one.spans).toEqual([]);
    expect(one.figures.map((c) => c.words)).toEqual(['calm', 'gale', 'All']);
  });

  it('is said again where a page ends within it', () => {
    const { figures } = headsOf({
      kind: 'crosstab',
      down: [{ column: 'route' }],
      across: [{ column: 'weather' }],
      measures: [SUM, MEAN],
    });
    expect(headSpans(figures.slice(0, 3))).toEqual([
      { words: 'Calm', columns: 2 },
      { words: 'Gale', columns: 1 },
    ]);
  });
});

describe('figures asked under each of the same conditions', () => {
  const columns = [late, gale].flatMap((condition) =>
    [SUM, MEAN].map((measure) => ({ measure, condition })),
  );
  const spec = Tally.parse({ kind: 'conditional', key: { column: 'route' }, columns });
  const names = namesOf(table);

  it('are said once in the sentence, and changed together', () => {
    const kind = kindOf(spec);
    expect(kind.plain(names, 'Sailings')).toBe(
      'Sum of Fares and mean of Delay, each where Delay is at least 10; where Weather is gale for each Route.',
    );
    const [sum, , , first] = slotsOf(kind.sentence(names, 'Sailings'));
    if (sum.takes.a !== 'measure' || first.takes.a !== 'condition') return expect.unreachable();
    const median = sum.takes.set({ kind: 'median', column: 'fares' });
    expect(median).toMatchObject({
      columns: [
        { measure: { kind: 'median' }, condition: late },
        { measure: MEAN, condition: late },
        { measure: { kind: 'median' }, condition: gale },
        { measure: MEAN, condition: gale },
      ],
    });
    expect(first.takes.set(null, null)).toMatchObject({ columns: columns.slice(2) });
  });

  it('are none where one is missing, has a name, stands twice or has no condition', () => {
    expect(productOf(columns)).toEqual({ measures: [SUM, MEAN], conditions: [late, gale] });
    expect(productOf(columns.slice(0, 3))).toBeNull();
    expect(productOf([...columns.slice(0, 3), { ...columns[3], name: 'late' }])).toBeNull();
    expect(productOf([...columns, ...columns])).toBeNull();
    expect(productOf([{ measure: SUM }, { measure: MEAN }])).toBeNull();
    expect(productOf(columns.slice(0, 1))).toBeNull();
    expect(productOf(columns.slice(0, 2))).toEqual({ measures: [SUM, MEAN], conditions: [late] });
  });
});
