import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answered, faultsOf } from '../../support/ask';
import { small, ledger } from '../../support/smallList';

describe('a bad ask names every fault with its path and a remedy', () => {
  const faults = (ask: Record<string, unknown>): string[] => faultsOf(() => answered(small, ask));

  it.each<[string, Record<string, unknown>, RegExp[]]>([
    ['nothing', {}, [/^tallies: This is missing/]],
    ['no tally', { tallies: [] }, [/^tallies: .*The least is 1/]],
    [
      'an unknown kind',
      { tallies: [{ kind: 'ledgr' }] },
      [/^tallies\[0\]\.kind: “?"?ledgr.*Did you mean “ledger”/],
    ],
    [
      'an unknown key',
      { tallies: [ledger({ mesures: [] })] },
      [/^tallies\[0\]\.mesures: .*means nothing here/],
    ],
    [
      'a misspelt measure',
      { tallies: [ledger({ measures: [{ kind: 'avrage', column: 'Sum' }] })] },
      [/^tallies\[0\]\.measures\[0\]\.kind: .*not possible/],
    ],
    [
      'a missing column',
      { tallies: [ledger({ groups: [{ column: 'Regoin' }] })] },
      [/^tallies\[0\]\.groups\[0\]\.column: There is no column “Regoin”. Did you mean “Region”/],
    ],
    [
      'a sum of text',
      { tallies: [ledger({ measures: [{ kind: 'sum', column: 'Depot' }] })] },
      [/measures\[0\]\.column: “Depot” is text, but this needs a number.*Take “Sum”/],
    ],
    [
      'a measure without its column',
      { tallies: [ledger({ measures: [{ kind: 'mean' }] })] },
      [/measures\[0\]\.column: The mean needs a column/],
    ],
    [
      'a weighted mean without weights',
      { tallies: [ledger({ measures: [{ kind: 'weightedMean', column: 'Sum' }] })] },
      [/measures\[0\]\.other: .*weights/],
    ],
    [
      'a faulty expression',
      { computed: [{ name: 'x', expression: 'Sum +' }], tallies: [ledger()] },
      [/^computed\[0\]\.expression: Character 6: The expression ends too early/],
    ],
    [
      'a circle',
      {
        computed: [
          { name: 'a', expression: 'b + 1' },
          { name: 'b', expression: 'c' },
          { name: 'c', expression: 'a' },
        ],
        tallies: [ledger()],
      },
      [/computed\[0\]: .*circle: “a” → “b” → “c” → “a”/],
    ],
    [
      'a name twice',
      { computed: [{ name: 'Sum', expression: '1' }], tallies: [ledger()] },
      [/^computed\[0\]: There is a column “Sum” already/],
    ],
    [
      'a condition that does not suit',
      {
        ladder: {
          rungs: [
            {
              condition: {
                kind: 'leaf',
                column: 'Region',
                test: { test: 'compare', op: 'gt', value: 3 },
              },
            },
          ],
        },
        tallies: [ledger()],
      },
      [/^ladder\.rungs\[0\]\.condition\.test: .*is text/],
    ],
    [
      'a bad regular expression',
      {
        ladder: {
          rungs: [
            { condition: { kind: 'leaf', column: 'Region', test: { test: 'regex', text: '(' } } },
          ],
        },
        tallies: [ledger()],
      },
      [/not a regular expression/],
    ],
    [
      'a record beyond the list',
      { ladder: { setAside: { records: [7] } }, tallies: [ledger()] },
      [/setAside\.records: There is no record 7/],
    ],
    [
      'a list that is not named',
      {
        joins: [{ list: 'fleet', on: [{ column: 'Depot' }], bring: [{ column: 'x' }] }],
        tallies: [ledger()],
      },
      [/^joins\[0\]\.list: There is no list “fleet”/],
    ],
    [
      'levels that do not nest',
      {
        tallies: [
          {
            kind: 'periods',
            column: 'Day',
            levels: ['month', 'year'],
            measures: [{ kind: 'records' }],
          },
        ],
      },
      [/levels\[1\]: years do not fit into months/],
    ],
    [
      'edges that do not rise',
      {
        tallies: [
          { kind: 'frequency', key: { column: 'Sum', bands: { by: 'edges', edges: [5, 1] } } },
        ],
      },
      [/key\.bands: The edges must rise/],
    ],
    [
      'a period of text',
      { tallies: [{ kind: 'frequency', key: { column: 'Depot', period: 'month' } }] },
      [/key\.column: “Depot” is text, but this needs a date/],
    ],
    [
      'an outer tally of a column the inner has not',
      {
        tallies: [
          {
            kind: 'nested',
            inner: ledger(),
            outer: { kind: 'ledger', measures: [{ kind: 'max', column: 'm9' }] },
          },
        ],
      },
      [/^tallies\[0\]\.outer\.measures\[0\]\.column: There is no column “m9”/],
    ],
  ])('%s', (_, ask, wanted) => {
    const found = faults(ask);
    wanted.forEach((w) => expect(found.join('\n')).toMatch(w));
    expect(found.length).toBe(wanted.length);
  });

  it('measures that look beyond their group only where they mean something', () => {
    const share = { kind: 'shareOfParent', column: 'Sum' };
    const at = (tally: object): string[] => faults({ tallies: [tally] });
    expect(at(ledger({ measures: [share, { kind: 'running', column: 'Sum' }] }))).toEqual([]);
    expect(at({ kind: 'ranking', groups: [{ column: 'Depot' }], by: share })).toEqual([]);
    expect(
      at({
        kind: 'crosstab',
        down: [{ column: 'Region' }],
        across: [{ column: 'Depot' }],
        measures: [share],
      })[0],
    ).toMatch(/measures\[0\]\.kind: The share of the group above has no meaning/);
    expect(
      at({
        kind: 'conditional',
        key: { column: 'Depot' },
        columns: [{ measure: { kind: 'recordsOfTotal' } }],
      }).length,
    ).toBe(1);
    expect(
      at({
        kind: 'periods',
        column: 'Day',
        levels: ['year'],
        measures: [{ kind: 'running', column: 'Sum' }],
      }).length,
    ).toBe(1);
  });

  it('all faults at once, never only the first', () => {
    const found = faults({
      sort: [{ column: 'nowhere' }],
      tallies: [
        ledger({ groups: [{ column: 'x' }], measures: [{ kind: 'sum', column: 'Depot' }] }),
        { kind: 'growth' },
      ],
    });
    expect(found.map((f) => f.split(':')[0])).toEqual([
      'sort[0].column',
      'tallies[0].groups[0].column',
      'tallies[0].measures[0].column',
      'tallies[1].series',
    ]);
  });

  it('whatever is sent, the answer is a result or a list of faults', () => {
    const junk = fc.letrec((tie) => ({
      any: fc.oneof(
        { maxDepth: 3 },
        fc.constantFrom('ledger', 'Sum', 'Region', 3, null, true, 'kind'),
        fc.array(tie('any'), { maxLength: 3 }),
        fc.dictionary(
          fc.constantFrom('kind', 'groups', 'measures', 'column', 'tallies', 'key', 'p'),
          tie('any'),
        ),
      ),
    })).any;
    fc.assert(
      fc.property(junk, (tally) => {
        faultsOf(() => answered(small, { tallies: [tally] }));
      }),
      { numRuns: 300 },
    );
  });
});

describe('an ask whose parts lie very deep in one another', () => {
  const within = (depth: number, wrap: (inner: unknown) => unknown, inner: unknown): unknown => {
    let out = inner;
    for (let k = 0; k < depth; k++) out = wrap(out);
    return out;
  };
  const nested = (depth: number): unknown =>
    within(depth, (inner) => ({ kind: 'nested', inner, table: 'main', outer: ledger() }), ledger());
  const conditions = (depth: number): unknown =>
    within(depth, (part) => ({ kind: 'all', parts: [part] }), {
      kind: 'leaf',
      column: 'Region',
      test: { test: 'blank' },
    });

  it.each([
    ['tallies 1,000 deep', { tallies: [nested(1000)] }],
    [
      'conditions 1,000 deep',
      { tallies: [ledger()], ladder: { rungs: [{ condition: conditions(1000) }] } },
    ],
    ['lists 100,000 deep', { tallies: JSON.parse('['.repeat(100_000) + ']'.repeat(100_000)) }],
  ])('%s are refused as a bad ask', (_, ask) => {
    expect(faultsOf(() => answered(small, ask))).toEqual([
      expect.stringContaining('more than 300 deep in one another'),
    ]);
  });

  it('a hundred conditions within one another are answered', () => {
    const ask = { tallies: [ledger()], ladder: { rungs: [{ condition: conditions(100) }] } };
    expect(answered(small, ask).tallies[0].tables[0].rows[0].cells).toContain(1);
  });
});
