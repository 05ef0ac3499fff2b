import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { examine } from '$lib/core/read/examine';
import type { DateOrder } from '$lib/core/read/recipe';
import { dayNumber } from '$lib/core/table/calendar';
import { isText } from '$lib/core/table/column';
import { readSettled, readText } from '../support/demo';

/** Files made at random: every line is accounted for, every digit and every day kept or told. */
const RUNS = Number(process.env.TALLY_LOFT_MANGLE ?? 300);

describe('lines', () => {
  it('each is a record, the header, skipped, blank or the header again, in any layout', () => {
    const cell = fc.constantFrom('Holm', 'Ness', '12', '7.5', '2025-01-02', '', 'x y', '2024');
    const row = (width: number): fc.Arbitrary<string> =>
      fc
        .array(cell, { minLength: width, maxLength: width })
        .map((cells) => cells.join(','))
        // A line of blanks alone is one more kind.
        .filter((line) => line.replaceAll(',', '') !== '');
    const file = fc.integer({ min: 2, max: 5 }).chain((width) =>
      fc.record({
        titles: fc.array(fc.constantFrom('A title', 'Printed on Monday'), { maxLength: 2 }),
        header: fc.constantFrom(
          ['route', 'n', 'fares', 'day', 'pier'].slice(0, width).join(','),
          '',
        ),
        rows: fc.array(row(width), { minLength: 1, maxLength: 12 }),
        blanks: fc.array(fc.nat(30), { maxLength: 3 }),
        again: fc.boolean(),
        trailing: fc.boolean(),
        notes: fc.array(fc.constantFrom('A note', 'Source: the port', '* late'), { maxLength: 3 }),
      }),
    );
    fc.assert(
      fc.property(file, ({ titles, header, rows, blanks, again, trailing, notes }) => {
        const body = [...rows];
        if (again && header) body.splice(body.length >> 1, 0, header);
        for (const at of blanks) body.splice(at % (body.length + 1), 0, '');
        const table = [...(header ? [header] : []), ...body].map((line) =>
          trailing && line ? `${line},` : line,
        );
        const lines = [...titles, ...table, ...notes];
        const text = `${lines.join('\n')}\n`;
        const { recipe, reading } = readSettled(text);
        const { evidence } = reading;
        const accounted =
          reading.table.length +
          Number(recipe.header) +
          Number(recipe.unitsBelow === true) +
          evidence.headerAgain.count +
          evidence.emptyLines +
          evidence.skipped.length +
          evidence.notes.length;
        // Blank lines among those that are skipped hold nothing to tell of.
        const blankSkipped = lines.slice(0, recipe.skipLines).filter((l) => l === '').length;
        if (accounted + blankSkipped !== lines.length)
          throw new Error(`${accounted} of ${lines.length} lines of ${JSON.stringify(text)}`);
        if (evidence.skipped.length > 0)
          expect(examine(recipe, reading).doubts.map((d) => d.kind)).toContain('skippedLines');
        if (evidence.notes.length > 0)
          expect(examine(recipe, reading).doubts.map((d) => d.kind)).toContain('notesBelow');
      }),
      { numRuns: RUNS },
    );
  });
});

describe('numbers', () => {
  it('keep every digit, or stay unread, whatever their length', () => {
    const digits = fc
      .tuple(fc.bigInt({ min: 0n, max: 10n ** 22n }), fc.nat(12))
      .map(([n, d]) => (d ? `${n}.${'1'.repeat(d)}` : String(n)));
    fc.assert(
      fc.property(digits, (text) => {
        const { reading } = readText(`v\n${'1.5\n'.repeat(30)}${text}\n`);
        const [read] = reading.table.columns;
        if (isText(read)) return;
        const value = read.values[30];
        if (Number.isNaN(value)) {
          expect(read.unread.get(30)).toBe(text);
          return;
        }
        const plain = (t: string): string =>
          t.replace('.', '').replace(/^0+/, '').replace(/0+$/, '');
        expect(plain(value.toExponential().replace(/e.*/, '')), text).toBe(plain(text));
      }),
      { numRuns: RUNS },
    );
  });
});

describe('dates', () => {
  const two = (n: number): string => String(n).padStart(2, '0');
  const day = fc.record({
    y: fc.integer({ min: 1971, max: 2068 }),
    m: fc.integer({ min: 1, max: 12 }),
    d: fc.integer({ min: 1, max: 28 }),
  });
  type Day = { y: number; m: number; d: number };
  const written: Record<DateOrder, (day: Day, mark: string, short: boolean) => string> = {
    dmy: ({ y, m, d }, mark, short) => [two(d), two(m), short ? two(y % 100) : y].join(mark),
    mdy: ({ y, m, d }, mark, short) => [two(m), two(d), short ? two(y % 100) : y].join(mark),
    ymd: ({ y, m, d }, mark, short) => [short ? two(y % 100) : y, two(m), two(d)].join(mark),
  };

  it('of one order are read as the days they are, or stay unread, or are asked about', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<DateOrder>('dmy', 'mdy', 'ymd'),
        fc.constantFrom('/', '-', '.'),
        fc.boolean(),
        fc.array(day, { minLength: 1, maxLength: 40 }),
        (order, mark, short, days) => {
          const cells = days.map((one) => written[order](one, mark, short));
          const { recipe, reading } = readText(
            `day,n\n${cells.map((c, k) => `${c},${k}.5`).join('\n')}\n`,
          );
          const [read] = reading.table.columns;
          if (isText(read)) {
            expect(cells.map((c, k) => read.dictionary[read.codes[k]] === c)).not.toContain(false);
            return;
          }
          if (examine(recipe, reading).doubts.some((d) => d.asks && d.column === read.id)) return;
          days.forEach(({ y, m, d }, k) => {
            const value = read.values[k];
            if (Number.isNaN(value)) expect(read.unread.get(k)).toBe(cells[k]);
            else if (value !== dayNumber(y, m, d))
              throw new Error(`${cells[k]} (${order}) among ${cells.join(' ')}`);
          });
        },
      ),
      { numRuns: RUNS },
    );
  });
});

describe('names that look like numbers', () => {
  it('keep every letter and zero, whatever stands over them', () => {
    const head = fc.constantFrom(
      'account',
      'code',
      'order',
      'parcel no',
      'n',
      'fares',
      'version',
      'phone',
    );
    const cell = fc.oneof(
      fc.stringMatching(/^\d{1,18}$/),
      fc.stringMatching(/^0\d{3,6}$/),
      fc.stringMatching(/^\d{1,3}E\d{1,2}$/),
      fc.stringMatching(/^\d{4}-\d{2}-\d{2}$/),
      fc.stringMatching(/^\d{1,2}\.\d{1,2}\.\d{1,2}$/),
    );
    const cells = fc.oneof(
      fc.array(cell, { minLength: 3, maxLength: 30 }),
      fc.array(fc.stringMatching(/^0\d{4}$/), { minLength: 3, maxLength: 30 }),
      fc.array(fc.stringMatching(/^\d{1,3}E\d{1,2}$/), { minLength: 3, maxLength: 30 }),
    );
    fc.assert(
      fc.property(head, cells, (name, texts) => {
        const { recipe, reading } = readText(
          `${name},route\n${texts.map((t) => `${t},Holm`).join('\n')}\n`,
        );
        const [read] = reading.table.columns;
        const told = examine(recipe, reading).doubts.some((d) => d.words.includes('like a code'));
        texts.forEach((text, k) => {
          if (isText(read)) expect(read.dictionary[read.codes[k]]).toBe(text);
          else if (Number.isNaN(read.values[k])) expect(read.unread.get(k)).toBe(text);
          else if (read.type === 'number' && String(read.values[k]) !== text && !told)
            throw new Error(
              `${text} became ${read.values[k]} under ${name} among ${texts.join(' ')}`,
            );
        });
      }),
      { numRuns: RUNS },
    );
  });
});
