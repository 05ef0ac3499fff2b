import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import type { FigurePlace } from '$lib/core/tally/answer/result';
import type { KnownNow } from '$lib/engine/protocol';
import { knownAt, knownMarks } from '$lib/ui/behind/knownMarks';
import { small } from '../support/smallList';

type Known = Bench['known'][number];

const place = (row: FigurePlace['row'], column = 'm1'): FigurePlace => ({
  table: 'main',
  row,
  column,
});
const known = (id: string, tally: string, more: Partial<Known> = {}): Known => ({
  id,
  tally,
  place: place(['North']),
  value: 27,
  decimals: 0,
  source: '',
  note: '',
  ...more,
});
const now = (id: string, row: FigurePlace['row'], stands: KnownNow['stands']): KnownNow => ({
  id,
  tally: 'ledger',
  place: place(row),
  stands,
  note: '',
  title: '',
  where: '',
  figure: '',
  known: '',
  difference: '',
  source: '',
  why: '',
});

const docWith = (list: readonly Known[]): Bench => ({ ...newBench(small, 1), known: [...list] });

describe('known totals beside the figures they are of', () => {
  it('stand by the place of their figure, where it is now', () => {
    const doc = docWith([known('a', 'ledger'), known('b', 'ledger', { place: place([]) })]);
    const marks = knownMarks(
      doc,
      [now('a', ['North'], 'differs'), now('b', [], 'agrees')],
      'ledger',
    );
    expect(knownAt(marks, place(['North']))).toBe('differs');
    expect(knownAt(marks, place([]))).toBe('agrees');
    expect(knownAt(marks, place(['South']))).toBeUndefined();
    expect(knownAt(marks, place(['North'], 'm2'))).toBeUndefined();
  });

  it('one over another scope is not that of the figure in the table', () => {
    const doc = docWith([known('a', 'ledger', { place: place([]), scope: 'all' })]);
    const marks = knownMarks(doc, [now('a', [], 'agrees')], 'ledger');
    expect(knownAt(marks, place([]))).toBeUndefined();
    expect(knownAt(marks, place([]), 'all')).toBe('agrees');
  });

  it('of another tally, and those not looked up yet, are none', () => {
    const doc = docWith([known('a', 'ledger'), known('b', 'other')]);
    expect(knownMarks(doc, [], 'third')).toBeNull();
    const marks = knownMarks(doc, [], 'ledger');
    expect(marks?.size).toBe(0);
    expect(knownAt(marks, place(['North']))).toBeUndefined();
    expect(knownAt(null, place(['North']))).toBeUndefined();
  });
});
