import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { BY_ITSELF, readList } from '../../cli/input';
import { proposeRecipe } from '$lib/core/read/delimited';
import { examine } from '$lib/core/read/examine';
import { marksAmbiguous } from '$lib/core/read/infer';
import type { Doubt } from '$lib/core/read/doubts';
import { isText } from '$lib/core/table/column';
import { readSettled, readText } from '../support/demo';

/** How a file reads: its columns as `name: type`, its records, and what is doubtful. */
function looked(text: string): { columns: string[]; records: number; doubts: Doubt[] } {
  const { recipe, reading } = readText(text);
  return {
    columns: recipe.columns.map((c) => `${c.name}: ${c.type}`),
    records: reading.table.length,
    doubts: examine(recipe, reading).doubts,
  };
}
const kinds = (text: string): string[] => looked(text).doubts.map((d) => d.kind);
const words = (text: string, kind: string): string =>
  looked(text).doubts.find((d) => d.kind === kind)?.words ?? '';
const asked = (text: string): string[] =>
  looked(text)
    .doubts.filter((d) => d.asks)
    .map((d) => d.kind);
/** A column of so many cells. */
const column = (head: string, of: (k: number) => string, n = 40): string =>
  `${head}\n${Array.from({ length: n }, (_, k) => of(k)).join('\n')}\n`;

describe('lines', () => {
  it.each<[string, string, string[], number]>([
    ['a delimiter behind each head', 'route,n,\nHolm,1\nNess,3\n', ['route: text', 'n: number'], 2],
    [
      'a delimiter behind each record',
      'route,n\nHolm,1,\nNess,3,\n',
      ['route: text', 'n: number'],
      2,
    ],
    [
      'a header that lacks a name',
      'route,n\nHolm,1,4\nNess,3,5\n',
      ['route: text', 'n: number', 'Column 3: number'],
      2,
    ],
    [
      'years as heads',
      'Region,2023,2024,2025\nHolm,10,20,30\nNess,11,21,31\n',
      ['Region: text', '2023: number', '2024: number', '2025: number'],
      2,
    ],
    [
      'days as heads',
      'kiosk,1,2,3\nQuay,5,5,9\nPier,7,8,2\n',
      ['kiosk: text', '1: number', '2: number', '3: number'],
      2,
    ],
    [
      'no header at all',
      'Holm,10,20\nNess,11,21\n',
      ['Column 1: text', 'Column 2: number', 'Column 3: number'],
      2,
    ],
    [
      'the header again below',
      'route,n\nHolm,1\nroute,n\nNess,3\n',
      ['route: text', 'n: number'],
      2,
    ],
    [
      'the header again below texts',
      'route,pier\nHolm,a\nroute,pier\nNess,b\n',
      ['route: text', 'pier: text'],
      2,
    ],
    [
      'a title above',
      'Keld Sound Ferries\nroute,n,fares\nHolm,1,2\nNess,3,4\n',
      ['route: text', 'n: number', 'fares: number'],
      2,
    ],
  ])('%s', (_, text, columns, records) => {
    expect(looked(text)).toMatchObject({ columns, records });
  });

  it('are told where they are neither header nor record', () => {
    expect(words('Keld Sound Ferries\nroute,n,fares\nHolm,1,2\n', 'skippedLines')).toContain(
      '“Keld Sound Ferries”',
    );
    const noted = readSettled(
      'n,route,fares\n1,Holm,2\n2,Ness,3\n3,Holm,4\n4,Ness,\n5,Holm,9\n\nSource: the port office\n* provisional\n',
    );
    expect(noted.recipe.notesBelow).toBe(2);
    expect(noted.recipe.columns.map((c) => c.type)).toEqual(['number', 'text', 'number']);
    expect(noted.reading.table.length).toBe(5);
    expect(
      examine(noted.recipe, noted.reading).doubts.find((d) => d.kind === 'notesBelow')?.words,
    ).toContain(
      '2 lines below the table are left out: “Source: the port office”, “* provisional”.',
    );
    expect(words('route,n\nHolm,1\nroute,n\nNess,3\n', 'headerAgain')).toContain('1 line below');
    expect(words('Region,2023,2024\nHolm,1,2\nNess,3,5\n', 'headerNumbers')).toContain(
      '2023, 2024',
    );
  });

  it('a quote that runs over many lines is a doubt with its place', () => {
    const text = `id,text\n1,"open\n${Array.from({ length: 50 }, (_, k) => `${k + 2},t`).join('\n')}\n52,end"\n53,z\n`;
    const [doubt] = looked(text).doubts.filter((d) => d.kind === 'spanningCells');
    expect(doubt.places).toEqual([{ record: 1, text: '52 lines in one cell' }]);
    expect(kinds('id,text\n1,"two\nlines"\n2,x\n')).not.toContain('spanningCells');
  });
});

describe('numbers', () => {
  it('whose digits a double does not hold are never read as numbers, and it says so', () => {
    const text = column('v', (k) => `0.12345678901234567${k % 9}1`);
    expect(looked(text).columns).toEqual(['v: text']);
    expect(words(text, 'longNumbers')).toContain('more digits than can be calculated with');
    // What a program wrote of a double in full is held by it.
    expect(looked(column('v', (k) => String(k / 7 + 0.1))).columns).toEqual(['v: number']);
  });

  it('of several kinds in one column are told', () => {
    expect(
      words(
        column('share', (k) => (k % 2 ? '12 %' : '0.3')),
        'mixedKinds',
      ),
    ).toContain('20 per cents and 20 plain');
    expect(
      words(
        column('fare', (k) => (k % 2 ? '£12' : '$13')),
        'mixedKinds',
      ),
    ).toContain('2 currencies');
    expect(
      words(
        column('took', (k) => (k % 2 ? '5h' : '90')),
        'mixedKinds',
      ),
    ).toContain('with a unit behind (5h)');
    expect(kinds(column('fare', () => '£12'))).not.toContain('mixedKinds');
  });

  it.each([
    ['1.234', '', '.', true],
    ["6'200", "'", '.', true],
    ['1,200', ',', '.', true],
    ['0.234', '', '.', false],
    ['1.23', '', '.', false],
    ['1234.567', '', '.', false],
    ['1,200.5', ',', '.', false],
    ['1,200,300', ',', '.', false],
    ['1 200', ' ', ',', false],
  ] as const)(
    '%s alone with marks “%s” and “%s”: ambiguous %s',
    (text, thousands, decimal, want) => {
      expect(marksAmbiguous([text, text], { thousands, decimal })).toBe(want);
    },
  );

  it('that can be read two ways are asked about', () => {
    for (const cells of ['1.234\n2.345', "6'200\n7'300", '"1,234"\n"2,345"'])
      expect(asked(`amount\n${cells}\n`), cells).toEqual(['ambiguousMarks']);
    expect(asked('amount\n1.234\n2.5\n')).toEqual([]);
    // One file is written in one way: another column may tell.
    expect(asked('a;b\n1,234;1,5\n2,345;2,5\n')).toEqual(['ambiguousMarks']);
    expect(asked('a;b\n1.234;1.5\n2.345;2.5\n')).toEqual([]);
    expect(asked('a;b\n1,234;1,007,047\n2,345;5\n')).toEqual([]);
    expect(words('a;b\n1.234;1.5\n2.345;2.5\n', 'ambiguousMarks')).toContain('as b shows');
  });
});

describe('names that look like numbers', () => {
  it.each([
    ['a parcel number that runs on', column('parcel', (k) => String(100_000 + k))],
    ['an account', column('account', (k) => String(40_000_000 + k * 7919))],
    ['a postcode with leading zeros', column('postcode', (k) => String(k * 13).padStart(5, '0'))],
    ['a code like a power of ten', column('code', (k) => `${k + 1}E${k % 9}`)],
    ['a cost centre like a date', column('cost centre', (k) => `41${10 + k}-10-01`)],
    ['a version', column('version', (k) => `1.${(k % 12) + 1}.${k % 20}`)],
    ['an id', column('vessel_id', (k) => String((k * 37) % 90))],
  ])('%s is kept as it stands', (_, text) => {
    const { recipe } = readText(text);
    expect(recipe.columns[0].type).toBe('text');
  });

  it.each([
    ['amounts of one length', column('fares', (k) => String(10_000 + ((k * 7919) % 80_000)))],
    ['a number of passengers', column('number of passengers', (k) => String(k % 90))],
    ['a numbering without a name', column('n', (k) => String(k + 1))],
  ])('%s is a number', (_, text) => {
    expect(readText(text).recipe.columns[0].type).toBe('number');
  });

  it('are said as a choice, either way', () => {
    expect(
      words(
        column('parcel', (k) => String(100_000 + k)),
        'identifier',
      ),
    ).toContain('kept as it stands and never added up');
    expect(
      words(
        column('order', (k) => String((k * 37) % 91)),
        'identifier',
      ),
    ).toContain('It is read as a number; make it text');
  });
});

describe('dates', () => {
  it.each([
    ['pressures', column('pressure', (k) => (1000 + k / 10).toFixed(1))],
    ['rates', column('rate', (k) => `1.0${800 + k}`)],
    ['shares', column('share', (k) => `2${k % 10}.${10 + (k % 80)}`)],
  ])('%s are numbers', (_, text) => {
    expect(readText(text).recipe.columns[0].type).toBe('number');
  });

  it('that nothing tells apart are asked about, two-digit years too', () => {
    expect(asked(column('day', (k) => `24-0${(k % 6) + 1}-1${k % 3}`))).toEqual(['ambiguousDates']);
    expect(asked('day\n2025-01-03\n2025-01-04\n03/04/2025\n')).toEqual(['ambiguousDates']);
    expect(asked('day\n03/04/2025\n13/04/2025\n')).toEqual([]);
    expect(asked('day\n05/05/2025\n06/06/2025\n')).toEqual([]);
  });

  it('with a weekday that is not theirs are not read', () => {
    const text = column('day', (k) => (k === 7 ? 'Tue 2025-01-08' : 'Mon 2025-01-06'));
    const { reading } = readText(text);
    const [read] = reading.table.columns;
    if (isText(read)) throw new Error('text');
    expect([...read.unread]).toEqual([[7, 'Tue 2025-01-08']]);
  });

  it('far from all others are told', () => {
    const text = column('day', (k) => (k === 3 ? '2205-01-03' : '2025-01-03'));
    expect(looked(text).doubts.find((d) => d.kind === 'farDates')?.places).toEqual([
      { record: 4, text: '2205-01-03' },
    ]);
  });
});

describe('words', () => {
  it('a country is no answer', () => {
    expect(looked(column('country', () => 'NO')).columns).toEqual(['country: text']);
    expect(looked(column('late', (k) => (k % 2 ? 'yes' : 'no'))).columns).toEqual(['late: yesno']);
  });

  it('a column kept as text against most of its cells says why', () => {
    const text = column('n', (k) => (k % 3 ? String(k + 0.5) : 'soon'));
    expect(words(text, 'keptAsText')).toMatch(
      /26 cells of n are numbers, but 14 cells are not \(soon\)/,
    );
  });

  it('a cell of very many spaces takes no longer than its length', () => {
    const wide = `n,day\n1,2025-01-02\n${`x${' '.repeat(200_000)}y`},${`2${' '.repeat(200_000)}5`}\n`;
    expect(looked(wide).records).toBe(2);
  });

  it('Windows-1252 reads its marks', () => {
    const bytes = Uint8Array.from(
      [...'note\n'].map((c) => c.charCodeAt(0)).concat(0x93, 0x61, 0x94, 0x96, 0x80, 10),
    );
    const recipe = proposeRecipe(bytes, true);
    expect(recipe.encoding).toBe('windows-1252');
    expect(readText(bytes).reading.table.columns[0]).toMatchObject({ dictionary: ['“a”–€'] });
  });
});

describe('one reader', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-read-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('what only the end of a long file tells decides for all of it', async () => {
    const file = path.join(folder, 'late.csv');
    const either = (k: number): string =>
      `${String((k % 12) + 1).padStart(2, '0')}/${String(((k * 5) % 12) + 1).padStart(2, '0')}/2025`;
    writeFileSync(
      file,
      ['day', ...Array.from({ length: 60_000 }, (_, k) => either(k)), '03/17/2025', ''].join('\n'),
    );
    const { recipe, reading } = await readList(file, BY_ITSELF);
    expect(recipe.columns[0]).toMatchObject({ type: 'date', dateOrder: 'mdy' });
    const [read] = reading.table.columns;
    expect(!isText(read) && read.unread.size).toBe(0);
    // A recipe that was given stands, and what does not fit it stays unread.
    const { columns } = recipe;
    const fixed = { ...recipe, columns: [{ ...columns[0], dateOrder: 'dmy' as const }] };
    const again = await readList(file, { ...BY_ITSELF, recipe: fixed });
    const [other] = again.reading.table.columns;
    expect(!isText(other) && [...other.unread.values()]).toEqual(['03/17/2025']);
  });

  it('a file reads the same whatever it is called by, and however long it is', async () => {
    // Windows-1252 under and over the part that decides the encoding.
    for (const lines of [3, 40_000]) {
      const file = path.join(folder, `marks-${lines}.csv`);
      const line = [0x93, 0x61, 0x94, 0x2c, 0x31, 0x0a];
      writeFileSync(
        file,
        Uint8Array.from([
          ...Buffer.from('note,n\n'),
          ...Array.from({ length: lines }, () => line).flat(),
        ]),
      );
      const fromFile = await readList(file, BY_ITSELF);
      const fromBytes = readText(readFileSync(file));
      expect(fromFile.recipe).toEqual(fromBytes.recipe);
      expect(fromFile.reading.table).toEqual(fromBytes.reading.table);
      expect(fromFile.reading.table.columns[0]).toMatchObject({ dictionary: ['“a”'] });
    }
  });
});
