import { describe, expect, it } from 'vitest';
import type { Row, TableColumn } from '$lib/engine/protocol';
import { crossShade, overlapShade } from '$lib/ui/tally/shade';
import type { SourceTable } from '$lib/ui/tally/source';

const column = (key: string, title: string, type: TableColumn['type'] = 'number'): TableColumn => ({
  key,
  title,
  unit: '',
  type,
  right: type !== 'text',
  opens: type !== 'text',
  scalar: false,
  whole: false,
  words: '',
  measure: '',
  of: '',
  over: '',
});
const row = (kind: Row['kind'], level: number, figures: Row['figures'], place = 0): Row => ({
  place,
  kind,
  level,
  keys: [],
  cells: figures.map(String),
  figures,
  marks: [],
  open: null,
});

/** A cross-tab of routes by weather, one measure under each. */
function crossTab(measure: string, rows: readonly Row[], whole: Row | null): SourceTable {
  const columns = [
    column('g1', 'Route', 'text'),
    column('a1.m1', `calm › ${measure}`),
    column('a2.m1', `gale › ${measure}`),
    column('all.m1', `All › ${measure}`),
  ];
  const head = {
    name: 'main',
    caption: '',
    labels: 1,
    length: rows.length,
    levels: 0,
    drawnWhole: false,
    columns,
    across: { from: 0, of: 3 },
  };
  return { head, rows, length: rows.length, whole };
}

describe('the shading of a cross-tab', () => {
  it('of sums is by the distance from row total × column total ÷ grand total', () => {
    const holm = row('group', 1, ['Holm', 30, 10, 40]);
    const ness = row('group', 1, ['Ness', 30, 30, 60]);
    const whole = row('total', 0, ['All', 60, 40, 100]);
    const shade = crossShade(crossTab('sum of Fares', [holm, ness, whole], whole));
    // Expected of Holm: 40 · 60 ÷ 100 = 24 and 40 · 40 ÷ 100 = 16; of Ness 36 and 24.
    expect(shade?.(holm, 1)).toBeCloseTo(6 / 24, 12);
    expect(shade?.(holm, 2)).toBeCloseTo(-6 / 16, 12);
    expect(shade?.(ness, 1)).toBeCloseTo(-6 / 36, 12);
    expect(shade?.(ness, 2)).toBeCloseTo(6 / 24, 12);
    // Margins and totals are what they are measured by.
    expect([shade?.(holm, 3), shade?.(whole, 1), shade?.(holm, 0)]).toEqual([0, 0, 0]);
  });

  it('of a mean is by the distance from the figure of the whole, never beyond one', () => {
    const holm = row('group', 1, ['Holm', 5, null, 5]);
    const ness = row('group', 1, ['Ness', 1, 90, 20]);
    const whole = row('total', 0, ['All', 2, 80, 10]);
    const shade = crossShade(crossTab('mean of Delay', [holm, ness], whole));
    expect(shade?.(holm, 1)).toBeCloseTo(-0.5, 12);
    expect(shade?.(holm, 2)).toBe(0);
    expect(shade?.(ness, 2)).toBe(1);
  });

  it('is none where the row or the column of the whole is not there, or it is nothing', () => {
    const holm = row('group', 1, ['Holm', 5, 5, 10]);
    expect(crossShade(crossTab('sum of Fares', [holm], null))).toBeNull();
    const table = crossTab('sum of Fares', [holm], holm);
    const narrow = { ...table.head, columns: table.head.columns.slice(0, 3) };
    expect(crossShade({ ...table, head: narrow })).toBeNull();
    const none = row('total', 0, ['All', 0, 0, 0]);
    expect(crossShade(crossTab('sum of Fares', [holm], none))?.(holm, 1)).toBe(0);
  });
});

describe('the shading of overlaps', () => {
  it('is the share of the row that is in both, but of a row with itself, however it is sorted', () => {
    const late = row('group', 1, ['late', 20, 5]);
    const gale = row('group', 1, ['gale', 5, 10], 1);
    const table: SourceTable = {
      ...crossTab('', [gale, late], null),
      head: {
        ...crossTab('', [], null).head,
        name: 'overlap',
        columns: [column('g', '', 'text'), column('c1', 'late'), column('c2', 'gale')],
      },
    };
    const shade = overlapShade(table);
    expect([shade?.(late, 1), shade?.(late, 2)]).toEqual([0, 5 / 20]);
    expect([shade?.(gale, 1), shade?.(gale, 2)]).toEqual([5 / 10, 0]);
    expect(overlapShade(crossTab('', [late], null))).toBeNull();
  });
});
