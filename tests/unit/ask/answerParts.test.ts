import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { needsWhole, PartsAnswer } from '$lib/core/ask/answerParts';
import { readAsk } from '$lib/core/ask/badAsk';
import type { Ask } from '$lib/core/ask/ask';
import type { AskResult } from '$lib/core/ask/result';
import { AskRefused, BadAsk } from '$lib/core/errors';
import { DelimitedReader, proposeRecipe } from '$lib/core/read/delimited';
import { examine, examineThrough } from '$lib/core/read/examine';
import type { Recipe } from '$lib/core/read/recipe';
import { finish } from '$lib/core/task/task';
import { textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { demoPath } from '../../support/demo';

const bytes = readFileSync(demoPath('sailings'));
const recipe = proposeRecipe(bytes.subarray(0, 1 << 16), false);

function readWhole(of: Uint8Array, by: Recipe): Table {
  const reader = new DelimitedReader(by);
  reader.push(of, true);
  return reader.finish().table;
}

/** A file read in stretches of about so many bytes. */
function inStretches(
  of: Uint8Array,
  by: Recipe,
  size: number,
  take: (part: Table) => void,
): DelimitedReader {
  const reader = new DelimitedReader(by);
  for (let at = 0; at < of.length; at += size) {
    reader.push(of.subarray(at, at + size));
    take(reader.take());
  }
  reader.push(new Uint8Array(0), true);
  take(reader.take());
  return reader;
}

function inParts(ask: Ask, others = new Map<string, Table>(), size = 20_000): AskResult {
  const answer = new PartsAnswer({ name: 'Sailings', recipe, others }, ask);
  inStretches(bytes, recipe, size, (part) => finish(answer.add(part)));
  return answer.finish();
}

const whole = readWhole(bytes, recipe);
const asWhole = (ask: Ask, others = new Map<string, Table>()): AskResult =>
  finish(answerAsk({ name: 'Sailings', table: whole, recipe, others }, ask)).result;

/** A result as it is told: numbers to 11 digits, without the records that single figures rest on. */
const told = (result: AskResult): unknown =>
  JSON.parse(
    JSON.stringify(result, (key, value: unknown) =>
      key === 'warnings' && Array.isArray(value)
        ? value.filter((warning: { code?: string }) => warning.code !== 'rests')
        : ['marks', 'deviations', 'bound'].includes(key)
          ? undefined
          : typeof value === 'number'
            ? Number(value.toPrecision(11))
            : value,
    ),
  );

const sailed = { kind: 'leaf', column: 'Cancelled', test: { test: 'is', values: ['no'] } };
const late = { kind: 'leaf', column: 'Delay', test: { test: 'compare', op: 'ge', value: 10 } };

const ASKS: Readonly<Record<string, object>> = {
  'a ladder with blanks, set aside by value, groups of several levels': {
    ladder: {
      rungs: [{ condition: sailed }, { condition: late }, { condition: late, on: false }],
      setAside: { values: [{ column: 'Vessel', value: 'Gannet' }] },
    },
    tallies: [
      {
        kind: 'ledger',
        groups: [
          { column: 'Route', loose: true },
          { column: 'Sailed on', period: 'quarter' },
        ],
        measures: [
          { kind: 'records' },
          { kind: 'sum', column: 'Fares taken' },
          { kind: 'mean', column: 'Delay' },
          { kind: 'sd', column: 'Delay' },
          { kind: 'blanks', column: 'Delay' },
          { kind: 'shareOfParent', column: 'Fares taken' },
          { kind: 'ratio', column: 'Fares taken', other: 'Boarded' },
        ],
      },
    ],
  },
  'median, percentiles, mode and distinct counts, whose values are kept': {
    tallies: [
      {
        kind: 'crosstab',
        down: [{ column: 'Route', loose: true }],
        across: [{ column: 'Weather', loose: true }],
        measures: [
          { kind: 'median', column: 'Delay' },
          { kind: 'percentile', column: 'Delay', percent: 90 },
          { kind: 'mode', column: 'Delay' },
          { kind: 'distinct', column: 'Vessel' },
        ],
      },
    ],
  },
  'columns worked out of others, conditions, periods and what moved it': {
    computed: [{ name: 'A head', expression: '"Fares taken" / NULLIF(Boarded, 0)', unit: '£' }],
    tallies: [
      {
        kind: 'conditional',
        rows: [
          { name: 'late', condition: late },
          { name: 'sailed', condition: sailed },
        ],
        columns: [
          { measure: { kind: 'records' } },
          { measure: { kind: 'mean', column: 'A head' }, condition: late },
        ],
      },
      {
        kind: 'periods',
        column: 'Sailed on',
        levels: ['year', 'month'],
        measures: [{ kind: 'sum', column: 'Boarded' }],
        against: ['yearBefore'],
      },
      {
        kind: 'contributions',
        measure: { kind: 'sum', column: 'Fares taken' },
        by: [{ column: 'Vessel', loose: true }],
        between: { of: 'periods', column: 'Sailed on', period: 'year' },
      },
      { kind: 'frequency', key: { column: 'Delay', bands: { by: 'width', width: 10 } } },
    ],
  },
};

describe('an ask about a list that is read in stretches', () => {
  for (const [name, document] of Object.entries(ASKS))
    it(`comes to the same as about the whole: ${name}`, () => {
      const ask = readAsk(document);
      expect(told(inParts(ask))).toEqual(told(asWhole(ask)));
    });

  it('is the same however long the stretches are', () => {
    const ask = readAsk(ASKS['a ladder with blanks, set aside by value, groups of several levels']);
    const want = told(asWhole(ask));
    for (const size of [3000, 77_777, 10_000_000])
      expect(told(inParts(ask, new Map(), size))).toEqual(want);
  });

  it('counts the records that find nothing in another list over all stretches', () => {
    const ask = readAsk({
      joins: [{ list: 'Crews', on: [{ column: 'Vessel' }], bring: [{ column: 'Crew' }] }],
      tallies: [{ kind: 'ledger', groups: [{ column: 'Crew' }], measures: [{ kind: 'records' }] }],
      lists: { Crews: { file: 'crews.csv' } },
    });
    const crews: Table = {
      length: 2,
      columns: [textColumn('Vessel', ['Fulmar', 'Gannet']), textColumn('Crew', ['red', 'blue'])],
    };
    const others = new Map([['Crews', crews]]);
    const [whole, parts] = [asWhole(ask, others), inParts(ask, others)];
    expect(whole.prepared.map(({ words }) => words)).toEqual([
      expect.stringMatching(/^[\d,]+ records of 17,631 records have no match in “Crews”/),
    ]);
    expect(told(parts)).toEqual(told(whole));
  });

  it('is refused where single records are looked at, with the reason', () => {
    const reason = (document: object): string => {
      const ask = readAsk(document);
      try {
        return needsWhole(ask) || (inParts(ask) && 'not refused');
      } catch (error) {
        return error instanceof AskRefused || error instanceof BadAsk
          ? error.message
          : String(error);
      }
    };
    const ledger = { kind: 'ledger', measures: [{ kind: 'records' }] };
    expect(reason({ tallies: [{ ...ledger, records: true }] })).toContain(
      'looks at single records',
    );
    expect(
      reason({ tallies: [{ kind: 'ledger', measures: [{ kind: 'first', column: 'Vessel' }] }] }),
    ).toContain('the first looks at single records');
    expect(reason({ tallies: [ledger], ladder: { setAside: { records: [4] } } })).toContain(
      'by their numbers',
    );
    const window = { figure: 'rank', of: 'Delay' };
    expect(reason({ tallies: [ledger], computed: [{ name: 'R', window }] })).toContain(
      'other records of its group',
    );
    expect(
      reason({ tallies: [{ ...ledger, groups: [{ column: 'expression: Boarded + 1' }] }] }),
    ).toContain('worked out where it is used');
    // What does not fit is told as it is of a whole list.
    expect(reason({ tallies: [{ ...ledger, groups: [{ column: 'Rout' }] }] })).toContain(
      'There is no column “Rout”',
    );
  });
});

describe('a file read in stretches', () => {
  const odd = new TextEncoder().encode('Depot;Fee\nAa;1\nBb;2,5\nAa;x\n;3\nBb;y\nCc;\n');
  const by = { ...proposeRecipe(odd, true) };
  const numbered: Recipe = {
    ...by,
    columns: by.columns.map((c) => (c.name === 'Fee' ? { ...c, type: 'number', decimal: ',' } : c)),
  };

  it('gives each record once: unread cells are numbered within, and no text is kept beyond its stretch', () => {
    const parts: Table[] = [];
    const reader = inStretches(odd, numbered, 14, (part) => parts.push(part));
    const all = readWhole(odd, numbered);
    expect(parts.reduce((sum, { length }) => sum + length, 0)).toBe(all.length);
    const texts = parts.flatMap(({ columns: [depot] }) =>
      depot.type === 'text' ? [...depot.codes].map((code) => depot.dictionary[code] ?? null) : [],
    );
    expect(texts).toEqual(['Aa', 'Bb', 'Aa', null, 'Bb', 'Cc']);
    expect(
      parts.every(
        ({ length, columns: [depot] }) =>
          depot.type === 'text' && depot.dictionary.length <= length,
      ),
    ).toBe(true);
    let from = 0;
    const unread = parts.flatMap(({ length, columns: [, fee] }) => {
      const found =
        fee.type === 'text' ? [] : [...fee.unread].map(([record, text]) => [record + from, text]);
      from += length;
      return found;
    });
    expect(unread).toEqual([
      [2, 'x'],
      [4, 'y'],
    ]);
    // What is doubtful is told as of the whole, but for what only whole records show.
    const whole = new DelimitedReader(numbered);
    whole.push(odd, true);
    const words = examine(numbered, whole.finish()).doubts.map((d) => d.words);
    for (const { words: own } of examineThrough(numbered, reader.readThrough()))
      expect(words).toContain(own);
  });
});
