import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { addRung } from '$lib/core/bench/edits';
import { FigureRecord } from '$lib/core/bench/figureRecord';
import { recipeOfMade } from '$lib/core/bench/madeList';
import { newBench } from '$lib/core/bench/newBench';
import { inReport, removeKnown, setKnown, setReport } from '$lib/core/bench/reportEdits';
import { addTally, keepApart, moveTally } from '$lib/core/bench/trayEdits';
import { agrees, readKnown } from '$lib/core/check/known';
import { taking } from '$lib/core/prepare/reshape';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { tablePrint } from '$lib/core/table/print';
import type { Table } from '$lib/core/table/table';
import { behind } from '$lib/core/tally/behind/behind';
import { questionsOf } from '$lib/core/tally/wish/guesses';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import { Tally } from '$lib/core/tally/spec/specs';
import { gatherReport, Report, troublesOf, type ReportTable } from '$lib/engine/report';
import { reportDocument } from '$lib/ui/report/document';
import { paginate, type Measured } from '$lib/ui/report/layout';
import { bandsOf, FootNotes, piecesOf, type Piece, type TablePiece } from '$lib/ui/report/pieces';
import { OpenBench } from '../support/bench';
import { small } from '../support/smallList';

const printOf = (table: Table): string => finish(tablePrint(table));
const open = (): OpenBench => new OpenBench(small, recipeOfMade(small), 'Depots');
const grouped = (): Bench =>
  addTally(
    newBench(small, 1),
    Tally.parse({
      kind: 'crosstab',
      down: [{ column: 'Region' }],
      across: [{ column: 'Depot' }],
      measures: [{ kind: 'sum', column: 'Sum' }],
    }),
    'Sums by region',
    'A note of mine.',
  );
async function reported(bench: OpenBench, doc: Bench): Promise<Report> {
  const counts = bench.engine.now('resolve', { doc });
  const facts = { list: 'Depots', read: '26 Nov 2026', made: '26 Nov 2026' };
  return Report.parse(
    await gatherReport((kind, args) => bench.engine.now(kind, args), counts, doc, facts),
  );
}
const NORTH = { table: 'main', row: ['North'], column: 'all.m1' };
const known = (value: number, doc = grouped()): Bench =>
  setKnown(doc, {
    tally: 'crosstab-1',
    place: NORTH,
    value,
    decimals: 0,
    source: 'the books',
    note: '',
  });

describe('what a figure should be', () => {
  it('is read as it is typed', () => {
    expect(readKnown('8,826,504.25', false)).toEqual({ value: 8826504.25, decimals: 2 });
    expect(readKnown(' £1 200 ', false)).toEqual({ value: 1200, decimals: 0 });
    expect(readKnown('(120)', false)).toEqual({ value: -120, decimals: 0 });
    expect(readKnown('−3.5', false)).toEqual({ value: -3.5, decimals: 1 });
    expect(readKnown('5.4 %', true)).toEqual({ value: 0.054, decimals: 3 });
    for (const none of ['', 'ten', '1.2.3', '12 min', '--1'])
      expect(readKnown(none, false)).toBeNull();
  });

  it('agrees as far as it was given, and no farther', () => {
    expect(agrees({ value: 5.4, decimals: 1 }, 5.449)).toBe(true);
    expect(agrees({ value: 5.4, decimals: 1 }, 5.46)).toBe(false);
    expect(agrees({ value: 27, decimals: 0 }, 27.4)).toBe(true);
    expect(agrees({ value: 0.3, decimals: 1 }, 0.1 + 0.2)).toBe(true);
    expect(agrees({ value: 27, decimals: 2 }, 27.01)).toBe(false);
  });

  it('agrees with every figure that is typed off the screen', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e9, max: 1e9, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (figure, decimals) => {
          const places = { minimumFractionDigits: decimals, maximumFractionDigits: decimals };
          const typed = readKnown(figure.toLocaleString('en', places), false);
          expect(typed && agrees(typed, figure)).toBe(true);
        },
      ),
    );
  });
});

describe('a known total of the bench', () => {
  it('is compared at every change, and says when its figure is gone', () => {
    const bench = open();
    bench.show(known(27));
    expect(bench.ask('known', {})).toMatchObject([
      { stands: 'agrees', figure: '27', known: '27', where: 'North', source: 'the books' },
    ]);
    const narrowed = addRung(known(27), {
      kind: 'leaf',
      column: 'Sum',
      not: false,
      test: { test: 'compare', op: 'gt', value: 5 },
    });
    bench.show(narrowed);
    expect(bench.ask('known', {})).toMatchObject([
      { stands: 'differs', figure: '22', difference: '−5' },
    ]);
    const gone = addRung(narrowed, {
      kind: 'leaf',
      column: 'Region',
      not: false,
      test: { test: 'is', values: ['South'], exact: true },
    });
    bench.show(gone);
    expect(bench.ask('known', {})).toMatchObject([{ stands: 'lost', why: /no longer there/ }]);
    bench.show({ ...known(27), tray: grouped().tray.slice(0, 1) });
    expect(bench.ask('known', {})).toMatchObject([
      { stands: 'lost', why: /no longer in the tray/ },
    ]);
  });

  it('of one figure there is one; another takes its place, and it can be taken off', () => {
    const twice = known(30, known(27));
    expect(twice.known).toMatchObject([{ id: 'k1', value: 30 }]);
    expect(removeKnown(twice, 'k1').known).toEqual([]);
  });

  it('a difference names the one act that mends it', () => {
    const bench = open();
    bench.show(grouped());
    const place = { tally: 'crosstab-1', ...NORTH };
    const remedies = (total: number): unknown[] =>
      bench
        .ask('check', { place, known: total })
        .explanations.flatMap(({ remedy, records }) => (remedy ? [[remedy, records]] : []));
    // Without the 12 of record 3 it is 15.
    expect(remedies(15)).toContainEqual([{ do: 'setAside' }, [2]]);
    const narrowed = addRung(grouped(), {
      kind: 'leaf',
      column: 'Sum',
      not: false,
      test: { test: 'compare', op: 'gt', value: 5 },
    });
    bench.show(narrowed);
    expect(remedies(27)).toContainEqual([{ do: 'switchOff', rung: 0 }, [1]]);
  });
});

describe('the report', () => {
  it('is the tray in its order, with what counts, notes and known totals', async () => {
    const report = await reported(open(), known(27));
    expect(report.title).toBe('Depots');
    expect(report.scope).toBe('6 records → counted 6, 100.0 %. Nothing is set aside by hand.');
    expect(report.sections.map(({ id }) => id)).toEqual(['ledger', 'crosstab-1']);
    expect(report.sections[1]).toMatchObject({ name: 'Sums by region', foots: true });
    expect(report.known).toHaveLength(1);
    expect(troublesOf(report)).toEqual([]);
    const turned = moveTally(keepApart(known(27), 'ledger', false), 'crosstab-1', 'ledger');
    const other = await reported(open(), keepApart(turned, 'ledger', true));
    expect(other.sections.map(({ id }) => id)).toEqual(['crosstab-1']);
  });

  it('says what does not hold: a known total that differs, a tally that does not fit', async () => {
    expect(troublesOf(await reported(open(), known(30)))).toEqual([
      'North, All › sum of Sum is 27, and should be 30 (the books): −3 apart.',
    ]);
    const gone = addTally(grouped(), Tally.parse({ kind: 'percentile', column: 'Gone' }), 'Gone');
    expect(troublesOf(await reported(open(), gone))).toEqual([
      expect.stringMatching(/^Gone: There is no column “Gone”/),
    ]);
  });

  it('as a web page: its words and figures, no script, nothing from outside, no markup of the data', async () => {
    const doc = setReport(inReport(known(27), 'crosstab-1', { note: '<b>bold</b> & plain' }), {
      title: 'Depots </style><script>alert(1)</script>',
      intro: 'Two words.',
    });
    const html = await reportDocument(await reported(open(), doc), doc.report);
    expect(html).toContain('Two words.');
    expect(html).toContain('&lt;b>bold&lt;/b> &amp; plain');
    expect(html).toContain('Known totals');
    expect(html).not.toMatch(/<script/i);
    expect(html).not.toMatch(/(?:src|href)=|url\(|@import/);
    expect(html).toMatch(/size: 210mm 297mm/);
    const lying = await reportDocument(await reported(open(), doc), {
      ...doc.report,
      paper: 'letter',
      lying: true,
    });
    expect(lying).toMatch(/size: 279\.4mm 215\.9mm/);
  });

  it('prints of a tally what was chosen', async () => {
    const kinds = async (shows: 'both' | 'chart' | 'table'): Promise<string[]> => {
      const report = await reported(open(), inReport(grouped(), 'crosstab-1', { shows }));
      return piecesOf(report, 650)
        .filter((piece) => 'section' in piece && piece.section === 1)
        .map(({ kind }) => kind);
    };
    expect(await kinds('both')).toEqual(['caption', 'chart', 'table', 'after']);
    expect(await kinds('chart')).toEqual(['caption', 'chart', 'after']);
    expect(await kinds('table')).toEqual(['caption', 'table', 'after']);
  });

  it('is made of nothing and of one record as well, by every kind, with long names', async () => {
    const long = 'Sailings of a name that goes on and on '.repeat(8).slice(0, 200);
    const one: Table = { length: 1, columns: small.columns.map((c) => finish(taking(c, [0]))) };
    for (const table of [small, one]) {
      const facts = {
        records: small.length,
        columns: finish(columnFacts(small)),
        lead: null,
        lists: [],
      };
      const all = questionsOf(facts).flatMap(({ guess }) => ('tally' in guess ? guess.tally : []));
      expect(all.length).toBeGreaterThan(8);
      const doc = all.reduce((bench, tally) => addTally(bench, tally, long), newBench(table, 1));
      const none = addRung(doc, {
        kind: 'leaf',
        column: 'Sum',
        not: false,
        test: { test: 'compare', op: 'gt', value: 1e9 },
      });
      for (const of of [doc, none]) {
        const bench = new OpenBench(table, recipeOfMade(table), long);
        const report = await reported(bench, of);
        expect(report.sections).toHaveLength(all.length + 1);
        const html = await reportDocument(report, of.report);
        expect(html).not.toMatch(/NaN|undefined|\[object/);
      }
    }
  });

  it('a wide table stands in bands: every column of figures in one of them', async () => {
    const [, { tables }] = (await reported(open(), grouped())).sections;
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 1200 }), (width) => {
        const bands = bandsOf(tables[0], width);
        const placed = bands.flatMap(({ figures }) => figures.map((c) => c.key));
        const all = tables[0].head.columns.slice(tables[0].head.labels).map((c) => c.key);
        expect(placed).toEqual(all);
        expect(bands.every(({ figures }) => figures.length > 0)).toBe(true);
      }),
    );
    expect(bandsOf(tables[0], 1200)).toHaveLength(1);
    expect(bandsOf(tables[0], 200).length).toBeGreaterThan(1);
  });

  it('a saying that several figures share has one number; beyond so many they are counted', () => {
    const row = (place: number, words: string) => ({
      place,
      kind: 'group' as const,
      level: 0,
      keys: [],
      cells: ['a'],
      figures: ['a'],
      marks: [{ kind: 'few' as const, words, column: 0 }],
      open: null,
    });
    const table = (rows: ReturnType<typeof row>[]): ReportTable => ({
      head: {
        name: 'main',
        caption: '',
        labels: 1,
        length: rows.length,
        levels: 0,
        drawnWhole: false,
        columns: [],
        across: { from: 0, of: 0 },
      },
      rows,
      printed: rows.length,
      length: rows.length,
      whole: null,
    });
    const same = table([row(0, 'few'), row(1, 'other'), row(2, 'few')]);
    const notes = new FootNotes([same]);
    expect(notes.notes).toEqual([
      { n: 1, words: 'few' },
      { n: 2, words: 'other' },
    ]);
    expect(same.rows.map((r) => notes.of('main', r, 0))).toEqual([1, 2, 1]);
    const many = new FootNotes([table(Array.from({ length: 40 }, (_, k) => row(k, `says ${k}`)))]);
    expect([many.notes.length, many.others]).toEqual([24, 16]);
  });
});

describe('pages', () => {
  const table = (section: number, to: number): TablePiece => ({
    kind: 'table',
    section,
    table: 0,
    band: 0,
    from: 0,
    to,
  });
  const measuredTable = fc
    .tuple(
      fc.array(fc.integer({ min: 5, max: 30 }), { maxLength: 60 }),
      fc.integer({ min: 10, max: 30 }),
    )
    .map(([rows, head]): Measured => ({
      piece: table(0, rows.length),
      head,
      rows,
      height: head + rows.reduce((a, b) => a + b, 0) + 6,
    }));
  const block = fc
    .tuple(
      fc.constantFrom('caption' as const, 'chart' as const, 'after' as const),
      fc.integer({ min: 5, max: 250 }),
    )
    .map(([kind, height]): Measured => ({ piece: { kind, section: 0 }, height }));

  it('hold every piece and every row once, in order, within their height', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(measuredTable, block), { maxLength: 25 }),
        fc.integer({ min: 260, max: 900 }),
        (measured, height) => {
          const pages = paginate(measured, height);
          const flat = pages.flat();
          // Tables put together again are the pieces as they were given.
          const again: Piece[] = [];
          for (const piece of flat) {
            const last = again.at(-1);
            if (piece.kind === 'table' && last?.kind === 'table' && piece.from > 0) {
              expect(piece.from).toBe(last.to);
              again[again.length - 1] = { ...last, to: piece.to };
            } else again.push(piece);
          }
          expect(again).toEqual(measured.map(({ piece }) => piece));
          for (const page of pages) {
            const used = page.reduce((sum, piece) => {
              const of =
                measured.find((m) => m.piece === piece) ??
                measured.find(
                  (m) =>
                    m.piece.kind === 'table' && piece.kind === 'table' && m.piece.to >= piece.to,
                );
              if (piece.kind !== 'table' || !of?.rows) return sum + (of?.height ?? 0);
              return sum;
            }, 0);
            expect(used).toBeLessThanOrEqual(height);
          }
        },
      ),
    );
  });

  it('a caption stands with what it is of; a table goes on with two rows at least', () => {
    const rows = Array.from({ length: 30 }, () => 20);
    const caption: Measured = { piece: { kind: 'caption', section: 0 }, height: 30 };
    const body: Measured = { piece: table(0, 30), head: 20, rows, height: 626 };
    const before: Measured = { piece: { kind: 'after', section: 0 }, height: 240 };
    // 240 + 30 + 6 + 20 + 2 · 20 is over 320: the caption goes to the next page with its table.
    const pages = paginate([before, caption, body], 320);
    expect(pages[0].map(({ kind }) => kind)).toEqual(['after']);
    expect(pages[1].map(({ kind }) => kind)).toEqual(['caption', 'table']);
    const parts = pages.flat().filter((piece) => piece.kind === 'table');
    expect(parts.map(({ from, to }) => [from, to])).toEqual([
      [0, 13],
      [13, 27],
      [27, 30],
    ]);
    // One row would be left over: the page before gives it company.
    const odd = paginate(
      [{ piece: table(0, 15), head: 20, rows: rows.slice(0, 15), height: 326 }],
      320,
    );
    expect(odd.flat().map((piece) => piece.kind === 'table' && piece.to)).toEqual([13, 15]);
  });

  it('begin anew where that is asked for', () => {
    const caption: Measured = { piece: { kind: 'caption', section: 0 }, height: 30, fresh: true };
    const chart: Measured = { piece: { kind: 'chart', section: 0 }, height: 100 };
    expect(paginate([caption, chart], 500)).toHaveLength(1);
    expect(paginate([chart, caption, chart], 500).map((page) => page.length)).toEqual([1, 2]);
  });
});

describe('the record of a figure', () => {
  it('says the list, the ask, the place and the figure; any other cell is another list', () => {
    const bench = open();
    const narrowed = addRung(grouped(), {
      kind: 'leaf',
      column: 'Sum',
      not: false,
      test: { test: 'compare', op: 'gt', value: 5 },
    });
    bench.show(narrowed);
    const record = FigureRecord.parse(
      bench.ask('figureRecord', { place: { tally: 'crosstab-1', ...NORTH } }),
    );
    expect(record).toMatchObject({ figure: 22, shown: '22', records: 2, place: NORTH });
    expect(record.ask.tallies).toHaveLength(1);
    expect(record.list).toMatchObject({ records: 6, print: printOf(small) });
    const [{ answer, input }] = finish(
      answerAsk({ name: 'x', table: small, others: new Map() }, record.ask),
    ).answers;
    expect(finish(behind(input, answer, record.place)).figure).toBe(22);
  });

  it('a print is of what was read, not of how it is coded', () => {
    const [region, ...rest] = small.columns;
    if (!('codes' in region)) throw new Error('no text');
    // The same texts by other codes.
    const recoded = {
      ...region,
      codes: region.codes.map((code) => (code < 0 ? -1 : region.dictionary.length - 1 - code)),
      dictionary: [...region.dictionary].reverse(),
    };
    expect(printOf({ ...small, columns: [recoded, ...rest] })).toBe(printOf(small));
    const changed = { ...recoded, codes: recoded.codes.slice().fill(0, 0, 1) };
    expect(printOf({ ...small, columns: [changed, ...rest] })).not.toBe(printOf(small));
    const zero: Table = { length: 2, columns: [scalarColumn('x', 'number', [0, null])] };
    const minus: Table = { length: 2, columns: [scalarColumn('x', 'number', [-0, null])] };
    const one: Table = { length: 2, columns: [scalarColumn('x', 'number', [0, 0])] };
    expect(printOf(minus)).toBe(printOf(zero));
    expect(printOf(one)).not.toBe(printOf(zero));
  });

  it('a print is the hash of the whole at once, as records of figures that were kept have it', () => {
    const length = 50_000;
    const texts = Array.from({ length }, (_, k) =>
      k % 11 === 0 ? null : `Quay “${(k * 7919) % 30_011}”\n`,
    );
    const numbers = Array.from({ length }, (_, k) => (k % 13 === 0 ? null : k / 8 - 100));
    const unread = new Map([[26, 'n/a']]);
    const table: Table = {
      length,
      columns: [
        textColumn('Quay', texts),
        scalarColumn('Fares', 'number', numbers, { unit: '£', unread }),
      ],
    };
    const hash = createHash('sha256');
    const line = (value: unknown): void => void hash.update(`${JSON.stringify(value)}\n`);
    line(length);
    line(['Quay', 'Quay', 'text', '']);
    const met = [...new Set(texts)].filter((text) => text !== null);
    const codes = new Map(met.map((text, code) => [text, code]));
    const coded = Int32Array.from(texts, (text) => (text === null ? -1 : (codes.get(text) ?? -2)));
    hash.update(new Uint8Array(coded.buffer));
    line(met);
    line(['Fares', 'Fares', 'number', '£']);
    hash.update(new Uint8Array(Float64Array.from(numbers, (v) => v ?? NaN).buffer));
    line([...unread]);
    expect(printOf(table)).toBe(hash.digest('hex'));
    expect(printOf({ length: 0, columns: [textColumn('Quay', [])] })).toBe(
      createHash('sha256').update('0\n["Quay","Quay","text",""]\n[]\n').digest('hex'),
    );
  });
});
