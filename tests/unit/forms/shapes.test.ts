import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { afterAll, describe, expect, it } from 'vitest';
import { BY_ITSELF, readList, type ReadList } from '../../../cli/input';
import { examine } from '$lib/core/read/examine';
import { isTooLong, noNumberFacts, numberReader } from '$lib/core/read/numbers';
import { fullCell } from '$lib/core/table/cell';
import { isText } from '$lib/core/table/column';
import { readText } from '../../support/demo';

const folder = mkdtempSync(path.join(tmpdir(), 'shapes-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** A file read as the command line reads it. */
async function read(name: string, content: string | Uint8Array): Promise<ReadList> {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  return readList(file, BY_ITSELF);
}
const columnsOf = ({ reading }: Pick<ReadList, 'reading'>): string[][] =>
  reading.table.columns.map((column) => [
    column.name,
    ...Array.from({ length: reading.table.length }, (_, n) =>
      !isText(column) && column.unread.has(n)
        ? `unread: ${column.unread.get(n)}`
        : fullCell(column, n),
    ),
  ]);
const doubtsOf = (text: string): string[] => {
  const { recipe, reading } = readText(text);
  return examine(recipe, reading).doubts.map(({ words }) => words);
};
const typesOf = (text: string): string[] =>
  readText(text).recipe.columns.map(({ type, unit }) => (unit ? `${type} in ${unit}` : type));

describe('digits', () => {
  const plain = numberReader({ thousands: '', decimal: '.', unit: '' }, noNumberFacts());

  it('of every exported double are read whole', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (any) => {
        const value = any + 0;
        expect(plain(String(value))).toBe(value);
        expect(isTooLong(String(value))).toBe(false);
        expect(plain(value.toPrecision(17))).toBe(value);
      }),
    );
  });

  it('that a double would lose leave their cell unread', () => {
    for (const text of ['12345678901234567890', '9007199254740993', '0.12345678901234567891'])
      expect([text, plain(text), isTooLong(text)]).toEqual([text, NaN, true]);
    for (const text of ['1e-400', '1e400'])
      expect([plain(text), isTooLong(text)]).toEqual([NaN, true]);
    expect(plain('0e5')).toBe(0);
  });

  it('one long number among many is unread by itself, with its digits; a minus is no digit', () => {
    const rows = Array.from({ length: 100 }, (_, k) => `${k}.5`);
    const { reading } = readText(
      `Dose\n-0.1234567890123456\n${rows.join('\n')}\n${'7'.repeat(20)}\n`,
    );
    const [dose] = reading.table.columns;
    expect(dose.type).toBe('number');
    expect(!isText(dose) && [dose.values[0], [...dose.unread]]).toEqual([
      -0.1234567890123456,
      [[101, '7'.repeat(20)]],
    ]);
    expect(doubtsOf(`Dose\n${rows.join('\n')}\n${'7'.repeat(20)}\n`).join()).toContain(
      'It is too long to be calculated with',
    );
  });
});

describe('names that are written as numbers', () => {
  it('versions and telephone numbers are text', () => {
    expect(
      columnsOf(readText('Version,Mobile,Downloads\n1.1,+442079460018,5\n1.10,+442079460019,6\n')),
    ).toEqual([
      ['Version', '1.1', '1.10'],
      ['Mobile', '+442079460018', '+442079460019'],
      ['Downloads', '5', '6'],
    ]);
  });
});

describe('plain years', () => {
  it('are offered as years, and group by year when they are', () => {
    const text = 'Season,Tons\n2021,4\n2022,5\n2022,6\n';
    expect(doubtsOf(text)).toEqual([
      'Season may be years (2021 to 2022). Read as dates, they group and roll up by year; as numbers they are never summed by a first guess.',
    ]);
    const { recipe, reading } = readText(text, (by) => ({
      ...by,
      columns: by.columns.map((c, k) => (k === 0 ? { ...c, type: 'date', grain: 'year' } : c)),
    }));
    expect(examine(recipe, reading).doubts).toEqual([]);
    expect(reading.table.columns[0]).toMatchObject({ type: 'date', grain: 'year' });
    // Numbers that lie where years do, of a unit, are none.
    expect(doubtsOf('Load (kg),n\n1900,1\n2000,2\n')).toEqual([]);
  });
});

describe('units', () => {
  it('a currency in the cells is the unit of the column', () => {
    expect(typesOf('Shop,Takings\nN,€5\nS,"€1,200.50"\n')).toEqual(['text', 'number in €']);
    expect(typesOf('Shop,Takings (£)\nN,5\nS,7\n')).toEqual(['text', 'number in £']);
    expect(typesOf('Shop,Takings\nN,€5\nS,$6\n')).toEqual(['text', 'number']);
  });

  it('a number without it among those with it is a doubt, and so is another currency at the next reading', () => {
    expect(doubtsOf('Shop,Takings\nN,€5\nS,€6\nE,€7\nW,8\n')).toEqual([
      '3 numbers of Takings have € beside them and 1 number has not: all are read as €. Mend the file if they are not the same.',
    ]);
    const { recipe } = readText('Shop,Takings\nN,€5\nS,€6\n');
    const { reading } = readText('Shop,Takings\nN,$5\nS,$6\n', () => recipe);
    expect(examine(recipe, reading).doubts.map(({ words }) => words)).toEqual([
      'Takings is in €, and 2 numbers of this file are in $. Change the unit, or mend the file.',
    ]);
  });
});

describe('marks and lines beside the numbers', () => {
  it('a number without the unit that others have behind them is a doubt, with its place', () => {
    const { recipe, reading } = readText('job,time\n1,5h\n2,90\n3,7h\n4,3h\n');
    expect(recipe.columns[1]).toMatchObject({ type: 'number', unit: 'h' });
    const [{ words, places }] = examine(recipe, reading).doubts;
    expect(words).toContain('1 number of time has no h behind it, and 3 have');
    expect(places).toEqual([{ record: 2, text: '90' }]);
  });

  it('CR and DR are no units: one of them takes off, and which is asked', () => {
    const text = 'entry,amount\n1,100 CR\n2,250\n3,75.50CR\n4,20 Dr\n';
    const { recipe, reading } = readText(text);
    expect(recipe.columns[1]).toMatchObject({ type: 'number', unit: '', takenOff: 'CR' });
    expect(columnsOf({ reading })[1]).toEqual(['amount', '-100', '250', '-75.5', '20']);
    const [asked] = examine(recipe, reading).doubts;
    expect([asked.kind, asked.asks, asked.words]).toEqual([
      'accountMarks',
      true,
      'Marks of accounts stand behind numbers of amount (CR 2×, DR 1×): those with CR are read as less than 0. Say which of the two takes off.',
    ]);
    const debits = readText(text, (found) => ({
      ...found,
      columns: found.columns.map((c) =>
        c.id === 'amount' ? { ...c, takenOff: 'DR' as const } : c,
      ),
    }));
    expect(columnsOf(debits)[1]).toEqual(['amount', '100', '250', '75.5', '-20']);
    // A minus beside a mark says two things.
    expect(columnsOf(readText('a,b\n1,-5 CR\n2,6 CR\n3,7 CR\n4,8\n5,9\n6,10\n7,3\n'))[1][1]).toBe(
      'unread: -5 CR',
    );
  });

  it('marks of accounts among cells that are none leave the column text, and it is said', () => {
    const words = doubtsOf('e,amount\n1,100 CR\n2,250\n3,3 min min\n4,20 DR\n5,x\n');
    expect(words).toEqual([
      '3 cells of amount are numbers, but 2 cells are not (3 min min): it is kept as text. Make it a number, and those are unread until corrected.',
    ]);
  });

  it('a line of units below the heads is no record', () => {
    const { recipe, reading } = readText(
      'Route;Weight;Length\n;kg;(m)\nHolm;12,5;3\nNess;14;4\nHolm;9;2\n',
    );
    expect(recipe.columns.map(({ name, type, unit }) => [name, type, unit])).toEqual([
      ['Route', 'text', ''],
      ['Weight', 'number', 'kg'],
      ['Length', 'number', 'm'],
    ]);
    expect(columnsOf({ reading })[1]).toEqual(['Weight', '12.5', '14', '9']);
    expect(examine(recipe, reading).doubts[0].words).toBe(
      'The line below the heads holds units (kg, m): it is no record, and they are the units of its columns.',
    );
    // At the next reading the list keeps its unit, and another in the file is a doubt.
    const tonnes = readText('Route;Weight;Length\n;t;m\nHolm;1;3\n', () => recipe);
    expect(examine(recipe, tonnes.reading).doubts.map((d) => d.words)).toContain(
      'Weight is in kg, and this file says t below its head. Change the unit, or mend the file.',
    );
  });

  it('words above words, or blanks by a word, are records', () => {
    for (const text of [
      'name,city,n\nkg,Oslo,1\nm,Ness,2\n',
      'name,n\n,n/a\nHolm,2\n',
      'a,b\nx,y\nz,w\n',
    ])
      expect([text, readText(text).recipe.unitsBelow]).toEqual([text, undefined]);
  });

  it('units below the heads of one of several files are none of its records', async () => {
    const { reading } = await read(
      'both.zip',
      zipSync({
        'a.csv': strToU8('Route,Weight\n,kg\nHolm,12\nNess,3\n'),
        'b.csv': strToU8('Route,Weight (kg)\nHolm,7\n'),
      }),
    );
    expect(columnsOf({ reading })[2]).toEqual(['Weight', '12', '3', '7']);
  });
});

describe('times', () => {
  it('without an offset never mix with those that have one', () => {
    const text =
      'At\n2024-01-31T22:30:00-05:00\n2024-02-01T10:00:00\n2024-02-02T10:00:00Z\n2024-02-03T10:00:00Z\n2024-02-04T10:00:00Z\n2024-02-05T10:00:00Z\n2024-02-06T10:00:00Z\n';
    expect(columnsOf(readText(text))[0].slice(0, 4)).toEqual([
      'At',
      '2024-02-01T03:30',
      'unread: 2024-02-01T10:00:00',
      '2024-02-02T10:00',
    ]);
    expect(doubtsOf(text).join()).toContain('1 time has none and is unread');
    const one = 'At\n2024-01-31T22:30:00+01:00\n2024-02-01T10:00:00\n';
    expect(readText(one).reading.table.columns[0].unit).toBe('');
    expect(doubtsOf(one).join()).toContain('1 time has none and is taken for the same clock');
  });

  it('finer than a millisecond stay on their day, and say so', () => {
    const text = 'At\n2024-01-01 23:59:59.9996\n2024-01-02 10:00:00.123456\n';
    expect(columnsOf(readText(text))[0]).toEqual([
      'At',
      '2024-01-01T23:59:59.999',
      '2024-01-02T10:00:00.123',
    ]);
    expect(doubtsOf(text).join()).toContain('2 times of At are finer than a millisecond');
  });
});

describe('headers', () => {
  it('that lack names at their end are headers all the same', () => {
    expect(
      columnsOf(readText('Site,Yield,yield,,\nA,1,2,3,x\nB,4,5,6,y\n')).map(([name]) => name),
    ).toEqual(['Site', 'Yield', 'yield (2)', 'Column 4', 'Column 5']);
    // A title filled up with delimiters is none.
    expect(columnsOf(readText('Report,May,,,\na,b,c,d,e\n1,2,3,4,5\n'))[0]).toEqual(['a', '1']);
  });
});

describe('several files as one', () => {
  const zip = (files: Record<string, string>): Uint8Array =>
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));

  it('read their decimals by their own marks', async () => {
    const list = await read(
      'kilns.zip',
      zip({
        'a.csv': 'Kiln,Temp\nA,"3,5"\nB,"4,25"\nC,x\n',
        'b.csv': 'Kiln,Temp\nD,3.5\nE,-1.25\n',
        'c.csv': 'Kiln;Temp\nF;1.234,5\nG;7\n',
      }),
    );
    expect(columnsOf(list)[2]).toEqual([
      'Temp',
      '3.5',
      '4.25',
      'unread: x',
      '3.5',
      '-1.25',
      '1234.5',
      '7',
    ]);
  });

  it('whose marks could be either are left as they were written', async () => {
    const list = await read(
      'either.zip',
      zip({ 'a.csv': 'Kiln,Temp\nA,"1,200"\nB,"1,300"\n', 'b.csv': 'Kiln;Temp\nC;2,5\nD;3,75\n' }),
    );
    // The other file says that the comma is the decimal mark.
    expect(columnsOf(list)[2]).toEqual(['Temp', '1.2', '1.3', '2.5', '3.75']);
  });

  it('keep columns of one name and columns without one', async () => {
    const list = await read(
      'bays.zip',
      zip({ 'a.csv': 'Bay,Yield,yield,\nA,1,2,x\n', 'b.csv': 'Bay,Yield,yield,\nB,3,4,y\n' }),
    );
    expect(columnsOf(list)).toEqual([
      ['File', 'a.csv', 'b.csv'],
      ['Bay', 'A', 'B'],
      ['Yield', '1', '3'],
      ['yield (2)', '2', '4'],
      ['Column 4', 'x', 'y'],
    ]);
  });
});

describe('JSON', () => {
  it('a field twice in one object is told; a dotted name stays apart from a field within', async () => {
    const list = await read(
      'twice.json',
      '[{"a":1,"a":2,"b":{"c":1},"b.c":9},{"a":3,"b":{"c":4}}]',
    );
    expect(columnsOf(list)).toEqual([
      ['a', '2', '3'],
      ['b.c', '1', '4'],
      ['b.c (2)', '9', ''],
    ]);
    expect(list.doubts.map(({ words }) => words).join()).toContain(
      '1 field stands twice in one object (“a”)',
    );
  });

  it('numbers too small or too large for a double are unread, exported doubles are not', async () => {
    const many = Array.from({ length: 60 }, (_, n) => `{"n":${n}}`).join();
    const list = await read(
      'far.json',
      `[{"n":1e-400},{"n":1e400},{"n":0.10000000000000001},${many}]`,
    );
    expect(columnsOf(list)[0].slice(1, 4)).toEqual(['unread: 1e-400', 'unread: 1e400', '0.1']);
  });

  it('plain values are one column; UTF-16 is read as what it is', async () => {
    expect(columnsOf(await read('plain.json', '[1, 2.5, null, 4]'))).toEqual([
      ['value', '1', '2.5', '', '4'],
    ]);
    const utf16 = Buffer.from('\ufeff[{"Bay":"Å","n":1},{"Bay":"B","n":2}]', 'utf16le');
    expect(columnsOf(await read('wide.json', utf16))).toEqual([
      ['Bay', 'Å', 'B'],
      ['n', '1', '2'],
    ]);
    // Delimited text that begins with a bracket.
    expect(columnsOf(await read('brackets.csv', '[1,[2\n5,6\n7,8\n')).length).toBe(2);
  });
});
