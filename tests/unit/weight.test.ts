import { describe, expect, it } from 'vitest';
import { recipeOfMade } from '$lib/core/bench/madeList';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { gatherShape } from '$lib/engine/gatherShape';
import type { Distribution } from '$lib/engine/protocol';
import { gatherReport, MOST_ROWS } from '$lib/engine/report';
import { piecesOf } from '$lib/ui/report/pieces';
import { OpenBench } from '../support/bench';

/** Customers with names as long as some are, two records each. */
const GROUPS = 3000;
const LENGTH = 2 * GROUPS;
const nameOf = (k: number): string =>
  `Keld Sound Harbour Provisions and Chandlery, Account ${String(k).padStart(5, '0')}, Skerry Bank`;
const table: Table = {
  length: LENGTH,
  columns: [
    textColumn(
      'Customer',
      Array.from({ length: LENGTH }, (_, i) => nameOf(i % GROUPS)),
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: LENGTH }, (_, i) => i),
      { unit: '£' },
    ),
    scalarColumn(
      'Boarded',
      'number',
      Array.from({ length: LENGTH }, (_, i) => (i * 7) % 100),
    ),
    scalarColumn(
      'Day',
      'date',
      Array.from({ length: LENGTH }, (_, i) => 19_000 + (i % 400)),
    ),
  ],
};
const view = { down: 99, turned: [] };

function opened(spec: unknown): OpenBench {
  const bench = new OpenBench(table, recipeOfMade(table), 'Accounts');
  bench.show(addTally(newBench(table, 1), Tally.parse(spec)));
  return bench;
}
const idOf = (spec: unknown): string => addTally(newBench(table, 1), Tally.parse(spec)).open;
const kilobytes = (reply: unknown): number => JSON.stringify(reply).length / 1000;

const SUM = { kind: 'sum', column: 'Fares' };
const FREQUENCY = { kind: 'frequency', key: { column: 'Customer' }, measures: [SUM] };

describe('answers to the page stay light', () => {
  it.each<[string, object]>([
    ['frequencies of long names', FREQUENCY],
    ['spread', { kind: 'spread', columns: ['Fares'], key: { column: 'Customer' } }],
    ['places', { kind: 'ranking', groups: [{ column: 'Customer' }], by: SUM }],
    ['lines of groups', { kind: 'line', x: 'Boarded', y: 'Fares', by: [{ column: 'Customer' }] }],
    [
      'periods of groups',
      {
        kind: 'periods',
        column: 'Day',
        levels: ['day'],
        measures: [SUM],
        by: [{ column: 'Boarded' }],
      },
    ],
  ])('%s', (_, spec) => {
    const bench = opened(spec);
    const at = { tally: idOf(spec) };
    const { tables } = bench.ask('answer', at);
    for (const { name } of tables)
      expect(
        kilobytes(bench.ask('rows', { ...at, table: name, across: 0, from: 0, count: 2000, view })),
      ).toBeLessThan(200);
    expect(kilobytes(bench.ask('shape', { ...at, from: 0 }))).toBeLessThan(200);
  });

  it('heavy rows come in several answers, none twice and none left out', () => {
    const bench = opened(FREQUENCY);
    const at = { tally: idOf(FREQUENCY), table: 'main', across: 0, count: 2000, view };
    const places: number[] = [];
    let answers = 0;
    for (let length = 1; places.length < length; answers++) {
      const came = bench.ask('rows', { ...at, from: places.length });
      length = came.length;
      expect(came.rows.length).toBeGreaterThan(0);
      expect(kilobytes(came)).toBeLessThan(200);
      places.push(...came.rows.map(({ place }) => place));
    }
    expect(answers).toBeGreaterThan(3);
    expect(places.toSorted((a, b) => a - b)).toEqual(
      Array.from({ length: GROUPS + 1 }, (_, place) => place),
    );
  });

  it('a report has all the rows that it is meant to show, however many answers they take', async () => {
    const doc = addTally(newBench(table, 1), Tally.parse(FREQUENCY));
    const bench = new OpenBench(table, recipeOfMade(table), 'Accounts');
    const counts = bench.show(doc);
    const report = await gatherReport(
      (kind, args) => Promise.resolve(bench.engine.now(kind, args)),
      counts,
      doc,
      { list: 'Accounts', read: '', made: '' },
    );
    const [main] = report.sections[report.sections.length - 1].tables;
    expect([main.rows.length, main.length]).toEqual([MOST_ROWS, GROUPS + 1]);
    expect(new Set(main.rows.map(({ place }) => place)).size).toBe(MOST_ROWS);
  });
});

describe('a report of a long series', () => {
  it('is drawn from all of its periods, and prints the first of them, which it says', async () => {
    const days = 1400;
    const daily: Table = {
      length: days,
      columns: [
        scalarColumn(
          'Day',
          'date',
          Array.from({ length: days }, (_, i) => 19_000 + i),
        ),
        scalarColumn(
          'Fares',
          'number',
          Array.from({ length: days }, (_, i) => i),
        ),
      ],
    };
    const doc = addTally(
      newBench(daily, 1),
      Tally.parse({ kind: 'periods', column: 'Day', levels: ['day'], measures: [SUM] }),
    );
    const bench = new OpenBench(daily, recipeOfMade(daily), 'Sailings');
    const counts = bench.show(doc);
    const report = await gatherReport(
      (kind, args) => Promise.resolve(bench.engine.now(kind, args)),
      counts,
      doc,
      { list: 'Sailings', read: '', made: '' },
    );
    const [main] = report.sections[report.sections.length - 1].tables;
    expect([main.rows.length, main.printed, main.length]).toEqual([days + 1, MOST_ROWS, days + 1]);
    const pieces = piecesOf(report, 700).filter((piece) => piece.kind === 'table');
    expect(pieces.at(-1)).toMatchObject({ from: 0, to: MOST_ROWS });
  });
});

describe('a list of many columns', () => {
  const COLUMNS = 900;
  const wide: Table = {
    length: 200,
    columns: Array.from({ length: COLUMNS }, (_, c) =>
      c % 3
        ? scalarColumn(
            `Takings of kiosk ${c}`,
            'number',
            Array.from({ length: 200 }, (__, i) => i * c),
            { unit: '£' },
          )
        : textColumn(
            `Words of kiosk ${c}`,
            Array.from({ length: 200 }, (__, i) => `said on day ${i}`),
          ),
    ),
  };

  it('its lines and the small pictures over its heads come in several answers, each light', () => {
    const bench = new OpenBench(wide, recipeOfMade(wide), 'Kiosks');
    const page = bench.show(newBench(wide, 1));
    expect(kilobytes(bench.ask('ledger', {}))).toBeLessThan(200);
    const falls: Distribution[] = [];
    while (falls.length < page.heads.length) {
      const came = bench.ask('heads', { from: falls.length });
      expect(came.length).toBeGreaterThan(0);
      expect(kilobytes(came)).toBeLessThan(200);
      falls.push(...came);
    }
    expect(falls).toHaveLength(page.heads.length);
    expect(falls.filter(({ kind }) => kind === 'bins')).toHaveLength((COLUMNS / 3) * 2);
    const records: number[] = [];
    while (records.length < 200) {
      const came = bench.lines(records.length, 60);
      expect(came.length).toBeGreaterThan(0);
      expect(kilobytes(came)).toBeLessThan(200);
      records.push(...came.map(({ record }) => record));
    }
    expect(records).toEqual(Array.from({ length: 200 }, (_, k) => k));
  });
});

describe('a series of very many periods', () => {
  const DAYS = 4000;
  const daily: Table = {
    length: 2 * DAYS,
    columns: [
      textColumn(
        'Vessel',
        Array.from({ length: 2 * DAYS }, (_, i) => (i < DAYS ? 'Fulmar' : 'Gannet')),
      ),
      scalarColumn(
        'Day',
        'date',
        Array.from({ length: 2 * DAYS }, (_, i) => 15_000 + (i % DAYS)),
      ),
      scalarColumn(
        'Fares',
        'number',
        Array.from({ length: 2 * DAYS }, (_, i) => i),
      ),
    ],
  };

  it('its chart comes in several answers, each light, and is the whole of it', async () => {
    const bench = new OpenBench(daily, recipeOfMade(daily), 'Sailings');
    const doc = addTally(
      newBench(daily, 1),
      Tally.parse({
        kind: 'periods',
        column: 'Day',
        levels: ['day'],
        measures: [SUM],
        by: [{ column: 'Vessel' }],
      }),
    );
    bench.show(doc);
    let answers = 0;
    const shape = await gatherShape((from) => {
      answers++;
      const came = bench.ask('shape', { tally: doc.open, from });
      expect(kilobytes(came)).toBeLessThan(200);
      return came;
    });
    if (shape.kind !== 'series') throw new Error(`a chart of ${shape.kind}`);
    expect(answers).toBeGreaterThan(1);
    expect(shape.steps).toHaveLength(DAYS);
    expect(new Set(shape.stepKeys.map((keys) => JSON.stringify(keys))).size).toBe(DAYS);
    expect(shape.lines.map(({ name }) => name)).toEqual(['Fulmar', 'Gannet']);
    expect(shape.lines[1].values).toEqual(Array.from({ length: DAYS }, (_, k) => DAYS + k));
  });
});
