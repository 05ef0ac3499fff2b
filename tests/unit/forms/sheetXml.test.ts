import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { BY_ITSELF, readList, type ReadAs } from '../../../cli/input';
import { examine } from '$lib/core/read/examine';
import { fullCell } from '$lib/core/table/cell';
import { isText } from '$lib/core/table/column';
import { fault, formula, isoDay, number, rawWorkbook, text } from '../../support/rawWorkbook';

const folder = mkdtempSync(path.join(tmpdir(), 'sheets-'));
afterAll(() => rmSync(folder, { recursive: true }));

let made = 0;
async function read(
  sheets: Parameters<typeof rawWorkbook>[0],
  as: ReadAs = BY_ITSELF,
): Promise<{
  columns: string[][];
  types: string[];
  doubts: string[];
  totals: number[];
  sheets: readonly string[];
}> {
  const file = path.join(folder, `${++made}.xlsx`);
  writeFileSync(file, rawWorkbook(sheets));
  const { recipe, reading, doubts, marks } = await readList(file, as);
  const { columns, length } = reading.table;
  const examined = examine(recipe, reading, marks);
  return {
    columns: columns.map((column) =>
      Array.from({ length }, (_, n) =>
        !isText(column) && column.unread.has(n)
          ? `unread: ${column.unread.get(n)}`
          : fullCell(column, n),
      ),
    ),
    types: columns.map(({ type }) => type),
    doubts: [...examined.doubts, ...doubts].map(({ words }) => words),
    totals: examined.totals.map(({ record }) => record + 1),
    sheets: [recipe.source?.part ?? ''],
  };
}

describe('cells of a workbook that its reader passes over', () => {
  it('a formula that was never calculated is unread, not blank', async () => {
    const { columns, types, doubts } = await read([
      [
        'Jobs',
        [
          [text('Job'), text('Hours'), text('Cost')],
          [text('a'), number(2), formula('B2*10')],
          [text('b'), number(3), formula('B3&gt;2')],
          [text('c'), number(4), formula('B4*10', 40)],
        ],
      ],
    ]);
    expect(types).toEqual(['text', 'number', 'number']);
    expect(columns[2]).toEqual(['unread: =B2*10', 'unread: =B3>2', '40']);
    expect(doubts).toContain(
      '2 cells of Cost hold formulas that no program has calculated yet; open the workbook in its program and save it. They are unread.',
    );
  });

  it('days without a format: as ISO 8601 writes them they are days, as numbers they are offered as days', async () => {
    const iso = await read([
      [
        'Jobs',
        [
          [text('Job'), text('Done')],
          [text('a'), isoDay('2024-01-05')],
          [text('b'), isoDay('2024-02-06T00:00:00')],
        ],
      ],
    ]);
    expect([iso.types[1], iso.columns[1]]).toEqual(['date', ['2024-01-05', '2024-02-06']]);
    const numbers: Parameters<typeof rawWorkbook>[0] = [
      [
        'Jobs',
        [
          [text('Job'), text('Done on')],
          [text('a'), number(45301)],
          [text('b'), number(45341)],
        ],
      ],
    ];
    const plain = await read(numbers);
    expect(plain.types[1]).toBe('number');
    expect(plain.doubts[0]).toBe(
      'Done on may be days, of which a workbook keeps the numbers (45,301 is Wed 10 Jan 2024). As numbers they have no months and no years.',
    );
    const file = path.join(folder, `${++made}.xlsx`);
    writeFileSync(file, rawWorkbook(numbers));
    const { recipe } = await readList(file, BY_ITSELF);
    const asDays = {
      ...recipe,
      columns: recipe.columns.map((c) =>
        c.name === 'Done on' ? { ...c, type: 'date' as const, dayNumbers: true } : c,
      ),
    };
    const days = await read(numbers, { ...BY_ITSELF, recipe: asDays });
    expect(days.columns[1]).toEqual(['2024-01-10', '2024-02-19']);
  });

  it('an error among texts is told with its place; a whole number past 2^53 keeps its digits, unread', async () => {
    const { columns, doubts } = await read([
      [
        'Jobs',
        [
          [text('Job'), text('Kind'), text('Meter')],
          [text('a'), fault('#N/A'), number('9007199254740993')],
          ...Array.from({ length: 20 }, (_, k) => [text('b'), text('big'), number(k)]),
        ],
      ],
    ]);
    expect(columns[2][0]).toBe('unread: 9007199254740993');
    expect(doubts).toContain(
      '1 cell of Kind holds an error in place of a value. It stands as its text.',
    );
  });

  it('two sheets of one name are both there', async () => {
    const sheets: Parameters<typeof rawWorkbook>[0] = [
      [
        'Jobs',
        [
          [text('Job'), text('n')],
          [text('a'), number(1)],
          [text('b'), number(2)],
          [text('c'), number(7)],
        ],
      ],
      [
        'Jobs',
        [
          [text('Job'), text('n')],
          [text('d'), number(3)],
        ],
      ],
    ];
    const first = await read(sheets);
    expect([first.sheets, first.columns[0]]).toEqual([['Jobs'], ['a', 'b', 'c']]);
    const second = await read(sheets, { ...BY_ITSELF, wanted: { part: 'Jobs (2)' } });
    expect(second.columns[0]).toEqual(['d']);
  });
});

describe('totals that a sheet marks', () => {
  const line = (name: string, n: number): string[] => [text(name), number(n)];

  it('by a formula over several rows, whatever its label says, with the sums compared', async () => {
    const { totals } = await read([
      [
        'Stock',
        [
          [text('Bay'), text('Crates')],
          line('A', 3),
          line('B', 4),
          line('C', 9),
          [text('All bays'), formula('SUM(B2:B4)', 16)],
          line('D', 1),
          line('E', 2),
          line('F', 8),
          [text('Yard'), formula('SUBTOTAL(9,B6:B8)', 12)],
        ],
      ],
    ]);
    expect(totals).toEqual([4, 8]);
  });

  it('by bold type where a key is blank too; sums across a row and running sums are none', async () => {
    const bold = await read([
      [
        'Stock',
        [
          [text('Bay', 1), text('Crates', 1)],
          line('A', 3),
          line('B', 4),
          [text(''), number(70, 1)],
          line('C', 1),
          line('D', 1),
        ],
      ],
    ]);
    expect(bold.totals).toEqual([3]);
    const across = await read([
      [
        'Stock',
        [
          [text('Bay'), text('Jan'), text('Both')],
          ...[2, 3, 4, 5, 6, 7].map((r) => [
            text(`B${r}`),
            number(r),
            formula(`SUM(B2:B${r})`, r * 100),
          ]),
        ],
      ],
    ]);
    expect(across.totals).toEqual([]);
    // A formula of one cell adds nothing up.
    const [head, ...lines] = [
      [text('Bay'), text('Crates')],
      line('A', 3),
      [text('B'), formula('SUM(B2:B2)', 9)],
      line('C', 7),
      line('D', 8),
    ];
    expect((await read([['Stock', [head, ...lines]]])).totals).toEqual([]);
  });
});

describe('all sheets of a workbook', () => {
  const month = (head: string, ...jobs: [string, number][]): string[][] => [
    [text('Job'), text(head)],
    ...jobs.map(([job, hours]) => [text(job), number(hours)]),
  ];
  const all: ReadAs = { ...BY_ITSELF, wanted: { all: true } };

  it('are one list, each record with its sheet, cells of their own kinds', async () => {
    const { columns, types, sheets } = await read(
      [
        ['January', month('Hours', ['0012', 2], ['a', 3.5])],
        [
          'February',
          [
            [text('Hours'), text('Job')],
            [number(4), text('7')],
          ],
        ],
        ['Notes', []],
      ],
      all,
    );
    expect(types).toEqual(['text', 'text', 'number']);
    expect(columns).toEqual([
      ['January', 'January', 'February'],
      ['0012', 'a', '7'],
      ['2', '3.5', '4'],
    ]);
    expect(sheets).toEqual(['']);
  });

  it('whose heads differ are not read before it is said what they are', async () => {
    const months: Parameters<typeof rawWorkbook>[0] = [
      ['January', month('Hours', ['a', 2])],
      ['February', month('Time', ['b', 3])],
    ];
    await expect(read(months, all)).rejects.toThrow('The sheets have not the same columns');
    const settled = await read(months, {
      ...BY_ITSELF,
      wanted: { all: true, heads: { Time: { sameAs: 'Hours' }, Hours: 'own' } },
    });
    expect(settled.columns).toEqual([
      ['January', 'February'],
      ['a', 'b'],
      ['2', '3'],
    ]);
  });
});
