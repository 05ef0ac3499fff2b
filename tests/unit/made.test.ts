import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnUses } from '$lib/core/bench/columnUse';
import type { Bench } from '$lib/core/bench/document';
import { addRung, setMeasures } from '$lib/core/bench/edits';
import { removeMade, setComputed } from '$lib/core/bench/madeEdits';
import { newBench } from '$lib/core/bench/newBench';
import { checkExpression } from '$lib/core/expression/check';
import { examplesFor } from '$lib/core/expression/examples';
import { writeName } from '$lib/core/expression/writeName';
import { ComputedSpec } from '$lib/core/prepare/specs';
import { COLUMN_TYPES, scalarColumn, textColumn, type Column } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Replies } from '$lib/engine/replies';
import type { ReplyOf } from '$lib/engine/protocol';
import { OpenBench } from '../support/bench';
import { noRecipe } from '../support/smallList';

const list: Table = {
  length: 8,
  columns: [
    textColumn('Route', ['Holm', 'Ness', 'Holm', null, 'Ness', 'Holm', 'Ness', 'Holm']),
    scalarColumn('Fares taken', 'number', [10, 20, 30, 40, NaN, 60, 70, 8000], { unit: '£' }),
    scalarColumn('Boarded', 'number', [1, 2, 0, 4, 5, 6, 7, 8]),
  ],
};
const worked = (name: string, expression: string): ComputedSpec =>
  ComputedSpec.parse({ name, expression });

function opened(doc: Bench = newBench(list, 1)): {
  draft: (spec: ComputedSpec, at?: number | null) => ReplyOf<'draft'>;
  bench: OpenBench;
} {
  const bench = new OpenBench(list, noRecipe, 'Sailings');
  bench.show(doc);
  return {
    bench,
    draft: (spec, at = null) => Replies.draft.parse(bench.ask('draft', { spec, at, whole: true })),
  };
}

describe('a column in the making', () => {
  it('shows its first records, what came out, and why some have none', () => {
    const { fault, column } = opened().draft(
      worked('Fare a head', '"Fares taken" / NULLIF(Boarded, 0)'),
    );
    expect(fault).toBeNull();
    expect(column).toMatchObject({
      type: 'number',
      of: 2,
      all: { values: 6, blank: 1, unread: 0, none: 1 },
    });
    expect(column?.heads.map((h) => h.name)).toEqual(['Fares taken', 'Boarded', 'Fare a head']);
    expect(column?.rows.map((r) => [r.cells.at(-1), r.none])).toEqual([
      ['10', ''],
      ['10', ''],
      ['', 'none: no value there'],
      ['10', ''],
      ['', 'none: Fares taken is blank'],
    ]);
    expect([column?.all?.lowest, column?.all?.highest]).toEqual(['10', '1,000']);
  });

  it('shows the first records before all of them were gone through, and the same', () => {
    const { bench, draft } = opened();
    for (const spec of [
      worked('Fare a head', '"Fares taken" / NULLIF(Boarded, 0)'),
      ComputedSpec.parse({
        name: 'x',
        across: { measure: 'mean', columns: ['Boarded', 'Fares taken'] },
      }),
      worked('x', "UPPER(Route) || '!'"),
    ]) {
      const first = Replies.draft.parse(
        bench.ask('draft', { spec, at: null, whole: false }),
      ).column;
      const all = draft(spec).column;
      expect(first?.all).toBeNull();
      expect(first?.heads).toEqual(all?.heads);
      expect(first?.rows.map((r) => [r.record, r.none])).toEqual(
        all?.rows.slice(0, 5).map((r) => [r.record, r.none]),
      );
      const figures = (cells: string[] = []): (number | string)[] =>
        cells.map((cell) => (cell === '' || Number.isNaN(Number(cell)) ? cell : Number(cell)));
      first?.rows.forEach((row, k) =>
        expect(figures(row.cells)).toEqual(figures(all?.rows[k].cells)),
      );
    }
  });

  it('one value far off all others is named by its record', () => {
    const { column } = opened().draft(worked('x', '"Fares taken" + 0'));
    expect(column?.all?.far).toEqual({ record: 8, text: '8,000' });
    expect(opened().draft(worked('x', 'Boarded + 0')).column?.all?.far).toBeNull();
  });

  it.each([
    ['"Fares take" / 2', '"Fares taken"'],
    ['Fares', '"Fares taken"'],
    ['boarde * 2', 'Boarded'],
    ['Boarded != 2', '<>'],
    ['Boarded == 2', '='],
    ['Route = ‘Holm’', "'Holm'"],
    ['Boarded > 1 && Boarded < 3', 'AND'],
    ['Boarded;', ''],
  ])('%s is mended by writing %s in the place of its fault', (source, fix) => {
    const { draft } = opened();
    let text = source;
    const { fault } = draft(worked('x', text));
    expect(fault?.fix).toBe(fix);
    // Each mend takes away the fault it was for; what is left is mended in turn.
    for (let k = 0; k < 3; k++) {
      const next = draft(worked('x', text)).fault;
      if (!next) break;
      expect(next.fix).not.toBeNull();
      text = text.slice(0, next.start) + (next.fix ?? '') + text.slice(next.end);
    }
    expect(draft(worked('x', text)).fault).toBeNull();
  });

  it('a name that is taken, a circle, and nothing written are faults', () => {
    const doc = setComputed(
      setComputed(newBench(list, 1), null, worked('a', 'Boarded + 1')),
      null,
      worked('b', 'a * 2'),
    );
    const { draft } = opened(doc);
    expect(draft(worked('Boarded', '1')).fault?.message).toContain('There is a column “Boarded”');
    expect(draft(worked('a', 'b + 1'), 0).fault?.message).toContain('in a circle');
    expect(draft(worked('c', ' ')).fault?.message).toBe('Nothing is written yet.');
    expect(draft(worked('c', 'a + b')).fault).toBeNull();
    // A column may be changed under its own name.
    expect(draft(worked('a', 'Boarded + 2'), 0).fault).toBeNull();
  });

  it('across columns, blanks counted', () => {
    const across = (measure: string) =>
      opened().draft(
        ComputedSpec.parse({ name: 'x', across: { measure, columns: ['Fares taken', 'Boarded'] } }),
      ).column;
    expect(across('sum')?.rows.map((r) => r.cells.at(-1))).toEqual(['11', '22', '30', '44', '5']);
    expect(across('blanks')?.rows[4].cells.at(-1)).toBe('1');
    expect(across('highestColumn')).toMatchObject({ type: 'text', all: { distinct: 2 } });
  });

  it('never dates with numbers, nor a total of days', () => {
    const day = scalarColumn('Day', 'date', [1, 2, 3, 4, 5, 6, 7, 8]);
    const dated: Table = {
      ...list,
      columns: [...list.columns, day, { ...day, id: 'E', name: 'E' }],
    };
    const bench = new OpenBench(dated, noRecipe, 'Sailings');
    bench.show(newBench(dated, 1));
    const fault = (measure: string, columns: string[]) =>
      bench.ask('draft', {
        spec: ComputedSpec.parse({ name: 'x', across: { measure, columns } }),
        at: null,
        whole: true,
      }).fault?.message;
    expect(fault('sum', ['Day', 'Boarded'])).toContain('cannot be taken together');
    expect(fault('max', ['Boarded', 'Day'])).toContain('cannot be taken together');
    expect(fault('sum', ['Day', 'E'])).toContain('has no meaning');
    expect(fault('max', ['Day', 'E'])).toBeUndefined();
  });
});

describe('a made column of a bench', () => {
  const made = setComputed(newBench(list, 1), null, worked('Fare a head', '"Fares taken" / 2'));
  const used = addRung(setMeasures(made, [{ kind: 'mean', column: 'Fare a head' }]), {
    kind: 'leaf',
    column: 'Fare a head',
    not: false,
    test: { test: 'compare', op: 'gt', value: 1 },
  });

  it('is found by the rest under its old name when it gets another, and back', () => {
    const renamed = setComputed(used, 0, worked('Half', '"Fares taken" / 2'));
    expect(renamed.computed[0]).toMatchObject({ name: 'Half', id: 'Fare a head' });
    const { bench } = opened();
    const overview = bench.show(renamed);
    expect(overview.faults).toEqual([]);
    expect(overview.columns.at(-1)).toMatchObject({ id: 'Fare a head', name: 'Half' });
    expect(overview.rungs[0].words).toBe('Half is over 1');
    expect(overview.heads.map((h) => h.name)).toContain('Half');
    const back = setComputed(renamed, 0, worked('Fare a head', '"Fares taken" / 2'));
    expect(back).toEqual(used);
  });

  it('is named wherever it is used, and its end is told there', () => {
    const more = setComputed(used, null, worked('Double', '"Fare a head" * 2'));
    const names = new Map([['Fare a head', 'Fare a head']]);
    expect(columnUses(more, ['Fare a head'], names, () => 'Ledger')).toEqual([
      'the step “Fare a head is over 1”',
      'the tally “Ledger”',
      'the made column “Double”',
    ]);
    expect(columnUses(more, ['Boarded'], names, () => 'Ledger')).toEqual([]);
    const gone = removeMade(more, { of: 'computed', at: 0 });
    const { bench } = opened();
    const overview = bench.show(gone);
    expect(overview.rungs[0].fault).toContain('There is no column “Fare a head”');
    expect(overview.faults.map((f) => f.path)).toEqual(
      expect.arrayContaining(['computed[0].expression', 'ladder.rungs[0].condition.column']),
    );
  });
});

describe('examples and names', () => {
  it('every example fits the columns it is made for, whatever their names and types', () => {
    const name = fc.string({ minLength: 1, maxLength: 12 }).filter((t) => t.trim() !== '');
    const columns = fc.uniqueArray(fc.record({ name, type: fc.constantFrom(...COLUMN_TYPES) }), {
      minLength: 1,
      maxLength: 6,
      selector: (c) => c.name.trim().toLowerCase(),
    });
    fc.assert(
      fc.property(columns, (given) => {
        const all = given.map(({ name, type }): Column =>
          type === 'text' ? textColumn(name, []) : scalarColumn(name, type, []),
        );
        for (const { expression } of examplesFor(given))
          expect(() => checkExpression(expression, all), expression).not.toThrow();
      }),
    );
  });

  it('names are written so that they are read as columns', () => {
    expect(
      ['fares', 'Fares taken', 'a "b"', 'case', 'Übergang', '2024', 'a-b'].map(writeName),
    ).toEqual(['fares', '"Fares taken"', '"a ""b"""', '"case"', 'Übergang', '"2024"', '"a-b"']);
  });
});
