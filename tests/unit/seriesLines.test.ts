import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { plainFormat } from '$lib/core/table/format';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { Replies } from '$lib/engine/replies';
import { seriesLines } from '$lib/ui/tally/seriesLines';
import { OpenBench } from '../support/bench';
import { day, noRecipe } from '../support/smallList';

/** Takings by cause: one says “blank”, one is blank. */
const list: Table = {
  length: 4,
  columns: [
    textColumn('Cause', ['blank', null, 'blank', null]),
    scalarColumn('Taken', 'number', [1, 20, 3, 1234.5], { decimals: 1 }),
    scalarColumn('Day', 'date', ['2025-01-03', '2025-01-04', '2025-02-05', '2025-02-06'].map(day)),
  ],
};

describe('the lines of groups', () => {
  const tally = Tally.parse({
    kind: 'periods',
    column: 'Day',
    levels: ['month'],
    measures: [{ kind: 'sum', column: 'Taken' }],
    by: [{ column: 'Cause' }],
  });
  const bench = new OpenBench(list, noRecipe, 'Takings');
  const doc = newBench(list, 1);
  bench.show({
    ...doc,
    formats: { Taken: { ...plainFormat, decimals: 2, style: 'currency' } },
    tray: [...doc.tray, { id: 'other', tally, view: newView(tally), note: '' }],
  });
  const shape = Replies.shape.parse(bench.ask('shape', { tally: 'other', from: 0 }));
  if (shape.kind !== 'series') throw new Error('no series');

  it('part the blanks from the text “blank”', () => {
    expect(shape.lines.map(({ name, values }) => [name, values])).toEqual(
      expect.arrayContaining([
        ['blank', [20, 1234.5]],
        ['“blank”', [1, 3]],
      ]),
    );
    expect(shape.lines).toHaveLength(2);
  });

  it('say their figures by the format of their column', () => {
    const [line] = seriesLines(shape, 'm1').filter(({ name }) => name === 'blank');
    expect(line.figures.map(({ words }) => words)).toEqual([
      'blank, Jan 2025: £20.00',
      'blank, Feb 2025: £1,234.50',
    ]);
  });
});
