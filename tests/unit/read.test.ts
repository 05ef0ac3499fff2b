import { IntakeError } from '$lib/core/errors';
import { describe, expect, it } from 'vitest';
import { DelimitedReader, proposeRecipe, reconsider } from '$lib/core/read/delimited';
import { detectEncoding } from '$lib/core/read/textDecoding';
import { examine } from '$lib/core/read/examine';
import { fullCell } from '$lib/core/table/cell';
import { isText } from '$lib/core/table/column';
import { previewOf } from '$lib/core/read/preview';
import { readDemo, readText } from '../support/demo';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const types = (text: string): string[] => readText(text).recipe.columns.map((c) => c.type);
const kinds = (text: string | Uint8Array): string[] => {
  const { recipe, reading } = readText(text);
  return examine(recipe, reading).doubts.map((d) => d.kind);
};
const rows = (text: string | Uint8Array): string[][] => {
  const { table } = readText(text).reading;
  return Array.from({ length: table.length }, (_, i) => table.columns.map((c) => fullCell(c, i)));
};

describe('layouts', () => {
  it.each([
    ['comma', 'a,b\n1,2\n', ','],
    ['semicolon', 'a;b\n1,5;2,5\n', ';'],
    ['tab', 'a\tb\n1\t2\n', '\t'],
    ['pipe', 'a|b\n1|2\n', '|'],
  ])('finds the delimiter %s', (_, text, delimiter) => {
    expect(readText(text).recipe.delimiter).toBe(delimiter);
  });

  it('finds a header, or none', () => {
    expect(readText('route,boarded\nNessness,12\n').recipe.header).toBe(true);
    const { recipe, reading } = readText('Nessness,12\nHolm,13\n');
    expect(recipe.header).toBe(false);
    expect(reading.table.length).toBe(2);
    expect(recipe.columns.map((c) => c.name)).toEqual(['Column 1', 'Column 2']);
  });

  it('skips titles above the table', () => {
    const { recipe, reading } = readText(
      'Keld Sound Ferries\n\nRoute,Boarded,Fares\nHolm,1,2\nNessness,3,4\n',
    );
    expect(recipe.skipLines).toBeGreaterThan(0);
    expect(recipe.columns.map((c) => c.name)).toEqual(['Route', 'Boarded', 'Fares']);
    expect(reading.table.length).toBe(2);
  });

  it('reads quotes, doubled quotes, delimiters and line ends inside them', () => {
    expect(rows('a,b\n"x, ""y""\nz",2\n')).toEqual([['x, "y"\nz', '2']]);
  });

  it('reads every line end, and says when they are mixed', () => {
    for (const end of ['\n', '\r\n', '\r'])
      expect(rows(`a,b${end}1,2${end}3,4${end}`)).toEqual([
        ['1', '2'],
        ['3', '4'],
      ]);
    expect(kinds('a,b\r\n1,2\n3,4\r5,6\n')).toContain('lineEnds');
    expect(rows('a,b\r\n1,2\n3,4\r5,6\n')).toHaveLength(3);
  });
});

describe('long files', () => {
  it('read the same in whatever portions they come, a cell over many of them among others', () => {
    const long = `first line\n${'fog on the sound, '.repeat(60_000)}"end"`;
    const lines = Array.from({ length: 20_000 }, (_, i) =>
      i === 9_000 ? `${i},"${long.replaceAll('"', '""')}"` : `${i},Route ${i % 7}`,
    );
    const bytes = bytesOf(`sailing,note\n${lines.join('\n')}\n`);
    const recipe = proposeRecipe(bytes.subarray(0, 10_000), false);
    for (const portion of [bytes.length, 1 << 20, 300_001]) {
      const reader = new DelimitedReader(recipe);
      for (let at = 0; at < bytes.length; at += portion)
        reader.push(bytes.subarray(at, at + portion), at + portion >= bytes.length);
      const { table, evidence } = reader.finish();
      expect(table.length).toBe(20_000);
      expect(evidence.widthFaults.count).toBe(0);
      expect(fullCell(table.columns[1], 9_000)).toBe(long);
      expect(fullCell(table.columns[1], 19_999)).toBe(`Route ${19_999 % 7}`);
    }
  });
});

describe('encodings', () => {
  const utf16 = (text: string, big: boolean, mark: boolean): Uint8Array => {
    const units = Array.from(mark ? `\ufeff${text}` : text, (c) => c.charCodeAt(0));
    return Uint8Array.from(units.flatMap((u) => (big ? [u >> 8, u & 255] : [u & 255, u >> 8])));
  };
  const text = 'stop,boarded\nCafé,1\nHolm,2\n';
  it.each([
    ['utf-8', bytesOf(text)],
    ['utf-8', bytesOf(`\ufeff${text}`)],
    ['utf-16le', utf16(text, false, true)],
    ['utf-16be', utf16(text, true, true)],
    ['utf-16le', utf16(text, false, false)],
    ['utf-16be', utf16(text, true, false)],
    ['windows-1252', Uint8Array.from(text, (c) => c.charCodeAt(0))],
  ] as const)('%s', (encoding, bytes) => {
    expect(detectEncoding(bytes)).toBe(encoding);
    expect(rows(bytes)[0]).toEqual(['Café', '1']);
    expect(readText(bytes).recipe.columns[0].name).toBe('stop');
  });

  it('says when a file was read in the wrong encoding', () => {
    const latin = Uint8Array.from(text, (c) => c.charCodeAt(0));
    const { recipe, reading } = readText(latin, (r) => ({ ...r, encoding: 'utf-8' }));
    expect(examine(recipe, reading).doubts.find((d) => d.kind === 'undecoded')?.count).toBe(1);
  });

  it('keeps a character cut between two chunks whole', () => {
    const bytes = bytesOf('stop,n\nÆrø,1\n');
    const reader = new DelimitedReader(proposeRecipe(bytes, true));
    for (let i = 0; i < bytes.length; i++)
      reader.push(bytes.subarray(i, i + 1), i === bytes.length - 1);
    expect(fullCell(reader.finish().table.columns[0], 0)).toBe('Ærø');
  });
});

describe('types', () => {
  it('are inferred from the cells', () => {
    expect(
      types(
        'a,b,c,d,e,f\nx,1.5,2025-01-02,08:10,yes,2025-01-02T08:10\ny,2,2025-01-03,09:00,no,2025-01-03 09:00\n',
      ),
    ).toEqual(['text', 'number', 'date', 'time', 'yesno', 'datetime']);
  });

  it('take a unit from the head or from behind most values', () => {
    expect(readText('Delay (min)\n3\n4\n').recipe.columns[0]).toMatchObject({
      name: 'Delay',
      unit: 'min',
      unitInCells: false,
    });
    const { recipe, reading } = readText('Wait,x\n3 min,1\n14 min,2\n,3\n');
    expect(recipe.columns[0]).toMatchObject({ type: 'number', unit: 'min', unitInCells: true });
    expect(fullCell(reading.table.columns[0], 1)).toBe('14');
  });

  it('leave codes with leading zeros and very long digits as text', () => {
    expect(types('code,long\n007,12345678901234567\n012,12345678901234568\n')).toEqual([
      'text',
      'text',
    ]);
  });

  it('decide marks by the whole column', () => {
    expect(readText('a;b\n1.234,50;1\n2,5;2\n').recipe.columns[0]).toMatchObject({
      thousands: '.',
      decimal: ',',
    });
    expect(readText('a;b\n"1,234.50";1\n2.5;2\n').recipe.columns[0]).toMatchObject({
      thousands: ',',
      decimal: '.',
    });
    expect(kinds('a;b\n1,234;1\n2,345;2\n')).toContain('ambiguousMarks');
  });

  it('ask about dates that can be read both ways, and only those', () => {
    const asked = readText('day,n\n03/04/2025,1\n05/06/2025,2\n');
    const doubt = examine(asked.recipe, asked.reading).doubts.find(
      (d) => d.kind === 'ambiguousDates',
    );
    expect(doubt).toMatchObject({ asks: true, count: 2 });
    expect(kinds('day,n\n03/04/2025,1\n25/06/2025,2\n')).not.toContain('ambiguousDates');
  });

  it('come right when the telling cell stands far down the file', () => {
    const early = Array.from(
      { length: 40_000 },
      (_, i) => `0${(i % 9) + 1}/0${(i % 8) + 1}/2025,${i}`,
    );
    const { recipe, reading } = readText(
      `day,n\n${early.join('\n')}\n04/25/2025,9\n12/31/2025,9\n`,
    );
    expect(recipe.columns[0].dateOrder).toBe('dmy');
    const better = reconsider(recipe, reading, new Set());
    expect(better?.columns[0].dateOrder).toBe('mdy');
    expect(reconsider(recipe, reading, new Set(['day']))).toBeNull();
  });

  it('show a quarter as a quarter', () => {
    const { recipe } = readText('period,n\n2025 Q1,1\n2025 Q2,2\n');
    expect(recipe.columns[0]).toMatchObject({ type: 'date', grain: 'quarter' });
    expect(previewOf(recipe, bytesOf('period,n\n2025 Q1,1\n'), 5)[0][0].text).toBe('Jan–Mar 2025');
  });
});

describe('doubts', () => {
  it('name records of the wrong width with what was left out', () => {
    const { recipe, reading } = readText('a,b\n1,2\n3\n4,5,6\n');
    const doubt = examine(recipe, reading).doubts.find((d) => d.kind === 'width');
    expect(doubt?.count).toBe(2);
    expect(doubt?.places.map((p) => p.record)).toEqual([2, 3]);
    expect(doubt?.places[1].text).toContain('left out: 6');
    expect(reading.table.length).toBe(3);
  });

  it('make repeated and empty names unique, visibly', () => {
    const { recipe, reading } = readText('a,a,,b\n1,2,3,4\n');
    expect(recipe.columns.map((c) => c.name)).toEqual(['a', 'a (2)', 'Column 3', 'b']);
    expect(new Set(recipe.columns.map((c) => c.id)).size).toBe(4);
    expect(examine(recipe, reading).doubts.find((d) => d.kind === 'names')?.count).toBe(2);
  });

  it('find records that stand twice', () => {
    const { recipe, reading } = readText('a,b\nx,1\ny,2\nx,1\n');
    expect(examine(recipe, reading).doubts.find((d) => d.kind === 'twins')?.places).toEqual([
      { record: 3, text: 'the same as record 1' },
    ]);
  });

  it('find totals by their label and by their sum', () => {
    const { recipe, reading } = readText(
      'item,q1,q2\ncrew,10,20\nfuel,5,7\nAll costs,15,27\nfares,100,90\nfreight,11,13\nAll income,111,103\n',
    );
    expect(examine(recipe, reading).totals.map((t) => t.record)).toEqual([2, 5]);
    expect(kinds('item,q1,q2\ncrew,10,20\nTotal,11,27\n')).toContain('totals');
    // A word that stands in most records is what the column is about.
    const about = 'item,q1,q2\nTotal crew,10,20\nTotal fuel,5,7\nharbour,3,4\n';
    expect(kinds(about)).not.toContain('totals');
  });

  it('see unread cells, blank words, spaces, NULs and empty lines', () => {
    const found = kinds(
      'route,delay\nHolm,1\nHolm ,2\nNess,n/a\nHolm,3\nNess,4\nHolm,5\nNess,6\nHolm,7\nNess,14 min\n\nNe\0ss,8\n',
    );
    expect(found).toEqual(
      expect.arrayContaining(['outerSpaces', 'blankWords', 'unread', 'nuls', 'emptyLines']),
    );
  });
});

describe('bad files', () => {
  const fails = (text: string | Uint8Array): string => {
    try {
      readText(text);
    } catch (error) {
      expect(error).toBeInstanceOf(IntakeError);
      return (error as IntakeError).message;
    }
    throw new Error('It was read.');
  };

  it('an empty file', () => {
    expect(fails('')).toContain('empty');
    expect(fails('\n\n  \n')).toContain('blanks');
  });

  it('a binary file', () => {
    expect(fails(Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]))).toContain('ZIP');
    expect(fails(Uint8Array.from({ length: 4000 }, (_, i) => (i * 7) % 32))).toContain(
      'not a text file',
    );
  });

  it('1,001 columns, where 1,000 are read', () => {
    const line = (n: number): string => Array.from({ length: n }, (_, k) => `c${k}`).join(',');
    expect(
      readText(`${line(1000)}\n${line(1000).replaceAll('c', '')}\n`).recipe.columns,
    ).toHaveLength(1000);
    expect(fails(`${line(1001)}\n${line(1001)}\n`)).toContain('1,001 columns');
  });

  it('a quote that never closes', () => {
    expect(fails(`a,b\n1,2\n3,"open\n${'x,y\n'.repeat(50)}`)).toContain('never closes');
    const asText = new DelimitedReader({
      ...proposeRecipe(bytesOf('a,b\n1,2\n'), true),
      quote: '',
    });
    asText.push(bytesOf('a,b\n3,"open\n4,5\n'), true);
    expect(asText.finish().table.length).toBe(2);
  });

  it('reads a header only as no records, one column, one record, a blank column', () => {
    expect(readText('a,b\n').reading.table.length).toBe(0);
    expect(rows('n\n1\n2\n\n3\n')).toEqual([['1'], ['2'], [''], ['3']]);
    expect(rows('a,b\n1,2')).toEqual([['1', '2']]);
    const { reading } = readText('a,b\n1,\n2,\n');
    expect(isText(reading.table.columns[1])).toBe(true);
    expect(rows('a,b\n1,\n2,\n')).toEqual([
      ['1', ''],
      ['2', ''],
    ]);
  });

  it('a cell of 10 MB is kept and listed', () => {
    const { recipe, reading } = readText(`a,b\n1,${'x'.repeat(10 * 1024 * 1024)}\n2,y\n`);
    expect(examine(recipe, reading).doubts.find((d) => d.kind === 'longCells')).toMatchObject({
      count: 1,
    });
    expect(fullCell(reading.table.columns[1], 0)).toHaveLength(10 * 1024 * 1024);
  });

  it('markup stays text', () => {
    expect(rows('a,b\n<script>alert(1)</script>,<b>x</b>\n')).toEqual([
      ['<script>alert(1)</script>', '<b>x</b>'],
    ]);
  });
});

describe('the demo files', () => {
  it('sailings', () => {
    const { recipe, reading } = readDemo('sailings');
    expect(reading.table.length).toBe(17_631);
    const { doubts } = examine(recipe, reading);
    expect(doubts.find((d) => d.kind === 'unread')).toMatchObject({ column: 'delay', count: 22 });
    expect(doubts.find((d) => d.kind === 'twins')).toMatchObject({ count: 1 });
    expect(doubts.find((d) => d.kind === 'outerSpaces')).toMatchObject({
      column: 'route',
      count: 9,
    });
  });

  it('statement, with its totals inside', () => {
    const { recipe, reading } = readDemo('statement');
    expect(examine(recipe, reading).totals.map((t) => t.record)).toEqual([4, 10]);
  });

  it('monthly fares, with semicolons and decimal commas', () => {
    const { recipe, reading } = readDemo('monthly-fares');
    expect(recipe).toMatchObject({ delimiter: ';' });
    expect(recipe.columns[0]).toMatchObject({ type: 'date', dateOrder: 'dmy' });
    expect(fullCell(reading.table.columns[0], 0)).toBe('2023-01-31');
    expect(reading.table.columns[2].type).toBe('number');
  });
});
