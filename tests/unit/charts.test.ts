import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everyNth, extent } from '$lib/ui/chart/figures';
import { cut, handleTexts, spreadLabels } from '$lib/ui/chart/labels';
import { tickTexts } from '$lib/ui/chart/ticks';
import { readBands, readNumbers, writeBands } from '$lib/ui/sentence/bandsText';
import { crossModel } from '$lib/ui/tally/crosstab/model';
import { alongTime, yearsOverlaid } from '$lib/ui/tally/periods/model';
import { shownColumns } from '$lib/ui/tally/columns';
import { labelsOf, sourceOf, type SourceTable } from '$lib/ui/tally/source';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { Tally } from '$lib/core/tally/spec/specs';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../support/bench';
import { noRecipe, small } from '../support/smallList';

describe('the chart kit', () => {
  it('writes the ticks of an axis in one scale', () => {
    expect(tickTexts([0, 500_000, 1_000_000, 1_500_000])).toEqual(['0', '0.5M', '1.0M', '1.5M']);
    expect(tickTexts([0, 2000, 4000])).toEqual(['0', '2,000', '4,000']);
    expect(tickTexts([0, 20_000, 40_000])).toEqual(['0', '20k', '40k']);
    expect(tickTexts([-0.5, 0, 0.5])).toEqual(['−0.5', '0', '0.5']);
    expect(tickTexts([0, 0.25, 0.5], true)).toEqual(['0 %', '25 %', '50 %']);
    expect(tickTexts([])).toEqual([]);
  });

  it('never lets labels cover one another, and keeps them within their height', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 450, noNaN: true }), { maxLength: 20 }),
        (at) => {
          const spread = spreadLabels(
            at.map((y, series) => ({ text: '', at: y, series })),
            14,
            0,
            400,
          );
          const places = spread.map((label) => label.at);
          for (let k = 1; k < places.length; k++)
            expect(places[k] - places[k - 1]).toBeGreaterThanOrEqual(14 - 1e-9);
          if (places.length) expect(places[places.length - 1]).toBeLessThanOrEqual(400 + 1e-9);
        },
      ),
    );
  });

  it('leaves a label where it wants to stand when there is room', () => {
    const labels = [10, 100, 300].map((at, series) => ({ text: String(at), at, series }));
    expect(spreadLabels(labels, 14, 0, 400)).toEqual(labels);
  });

  it('cuts texts, thins ticks and reaches to 0 where lengths are read', () => {
    expect(cut('Holm and Inner Isles', 64)).toBe('Holm and…');
    expect(cut('Ness', 64)).toBe('Ness');
    expect(everyNth(42, 420, 60)).toBe(6);
    expect(everyNth(3, 420, 60)).toBe(1);
    expect(extent([3, 9, NaN], true)).toEqual([0, 9]);
    expect(extent([3, 9], false)).toEqual([3, 9]);
    expect(extent([], true)).toEqual([0, 1]);
    expect(extent([-4, -2], true)).toEqual([-4, 0]);
  });
});

describe('what is typed', () => {
  it('numbers with commas, semicolons or spaces; a word is none', () => {
    expect(readNumbers('0, 5; 10 −3')).toEqual({ numbers: [0, 5, 10, -3] });
    expect(readNumbers('1, two')).toEqual({
      wrong: '“two” is no number. Type numbers, with commas between them.',
    });
    expect(readNumbers('')).toEqual({ numbers: [] });
  });

  it('bands, one a line, and back', () => {
    const bands = [
      { label: 'on time', from: 0, to: 5 },
      { label: 'late, very', from: 5, to: null },
    ];
    expect(readBands(writeBands(bands))).toEqual({ bands });
    const sided = [{ label: 'late', from: 10, to: 20, fromIn: true, toIn: false }];
    expect(writeBands(sided)).toBe('late, [10, 20)');
    expect(readBands(writeBands(sided))).toEqual({ bands: sided });
    expect(readBands('slow, 1, x')).toEqual({ wrong: 'Line 1: an edge is no number.' });
    expect(readBands('alone')).toEqual({
      wrong: 'Line 1: type a name, a lower and an upper edge.',
    });
    expect(readBands('\n')).toEqual({ wrong: 'Type one band a line.' });
  });
});

/** The table of a tally over the small list, as the page gets it. */
function seen(spec: unknown): SourceTable {
  const tally = Tally.parse(spec);
  const bench = new OpenBench(small, noRecipe, 'Sums');
  const doc = newBench(small, 1);
  bench.show({
    ...doc,
    tray: [...doc.tray, { id: 'other', tally, view: newView(tally), note: '' }],
  });
  const answered = Replies.answer.parse(bench.ask('answer', { tally: 'other' }));
  const [head] = answered.tables;
  const came = Replies.rows.parse(
    bench.ask('rows', {
      tally: 'other',
      table: 'main',
      across: 0,
      from: 0,
      count: 100,
      view: { down: 99, turned: [] },
    }),
  );
  const tables = new Map([['main', { head, from: 0, ...came }]]);
  const table = sourceOf({
    id: 'other',
    token: 1,
    answered,
    tables,
    first: tables,
    shape: { kind: 'none' },
  }).table('main');
  if (!table) throw new Error('no table');
  return table;
}

describe('what charts are drawn from', () => {
  it('rows that share a label are called by the labels around them as well', () => {
    const ranking = seen({
      kind: 'ranking',
      groups: [{ column: 'Region' }, { column: 'Depot' }],
      by: { kind: 'sum', column: 'Sum' },
      within: 1,
      top: 1,
    });
    // North: A 15, then B; South: D 9, then C; without a region D again.
    expect(labelsOf(ranking, ranking.rows)).toEqual([
      'A',
      'South › D',
      'blank › D',
      'North › 1 other',
      'South › 1 other',
    ]);
  });

  it('a cross-tab: a row of figures for each group, a step for each across, each its own figure', () => {
    const model = crossModel(
      seen({
        kind: 'crosstab',
        down: [{ column: 'Region' }],
        across: [{ column: 'Day', period: 'year' }],
        measures: [{ kind: 'sum', column: 'Sum' }],
      }),
      'lines',
    );
    expect(model.steps).toEqual(['2024', '2025']);
    expect(model.rows.map((r) => [r.name, r.figures.map((f) => f.value)])).toEqual([
      ['North', [0, 27]],
      ['South', [7, 9]],
      ['blank', [0, 1]],
    ]);
    expect(model.rows[0].figures[1]).toMatchObject({
      words: expect.stringContaining('North, 2025 › sum of Sum: £27'),
      place: { table: 'main', row: ['North'], column: 'a2.m1' },
    });
  });

  it('periods along time, and years over one another with the newest strongest', () => {
    const table = seen({
      kind: 'periods',
      column: 'Day',
      levels: ['year', 'month'],
      measures: [{ kind: 'sum', column: 'Sum' }],
    });
    const along = alongTime(table, 1);
    expect(along.steps[0]).toBe('Dec 2024');
    expect(along.lines[0].figures.map((f) => f.value).filter((v) => v > 0)).toEqual([
      7, 10, 5, 12, 10,
    ]);
    const years = yearsOverlaid(table, 1);
    expect(years.lines.map((l) => l.name)).toEqual(['2024', '2025']);
    expect(years.strong).toBe(1);
    expect(years.steps[0]).toBe('Jan');
    const fiscal = yearsOverlaid(table, 4);
    expect(fiscal.lines.map((l) => l.name)).toEqual(['2024/25', '2025/26']);
    expect(fiscal.steps[0]).toBe('Apr');
  });

  it('heads say the column and the measure apart, and spans not again', () => {
    const { head } = seen({
      kind: 'periods',
      column: 'Day',
      levels: ['year', 'quarter'],
      measures: [{ kind: 'sum', column: 'Sum' }],
      against: ['previous'],
    });
    const { tree, labels, figures } = shownColumns(head);
    expect(tree).toBe(true);
    expect(labels.map((c) => c.words)).toEqual(['Period']);
    expect(figures.map((c) => [c.words, c.sub])).toEqual([
      ['Records', ''],
      ['Sum', 'sum, £'],
      ['The period before', '£'],
      ['Difference from the period before', '£'],
      ['Change from the period before', ''],
    ]);
  });
});

describe('texts on handles side by side', () => {
  it('are whole where they fit, in thousands where they would cover one another', () => {
    const edges = [0, 100_000, 200_000, 300_000];
    expect(handleTexts(edges, 900).texts).toEqual(['0', '100,000', '200,000', '300,000']);
    expect(handleTexts(edges, 180).texts).toEqual(['0', '100k', '200k', '300k']);
    // No digit is left out to save room.
    expect(handleTexts([0, 1500, 3000], 60).texts).toEqual(['0', '1,500', '3,000']);
  });

  it('stand as far apart as they are wide, and never farther than there is room', () => {
    const { texts, apart } = handleTexts([0, 5, 10, 400], 900);
    const placed = spreadLabels(
      texts.map((text, series) => ({ text, at: series, series })),
      apart,
      0,
      900,
    );
    for (let k = 1; k < placed.length; k++)
      expect(placed[k].at - placed[k - 1].at).toBeGreaterThanOrEqual(3 * 6.9 + 22 - 1e-9);
    expect(handleTexts(edgesOf(30), 300).apart * 29).toBeLessThanOrEqual(300 + 1e-9);
    expect(handleTexts([], 300)).toEqual({ texts: [], apart: 22 });
  });
});

const edgesOf = (n: number): number[] => Array.from({ length: n }, (_, k) => k * 7);
