import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { Table, tableToIPC, vectorFromArray, Utf8, DateDay, Int64 } from 'apache-arrow';
import { utils, write, type CellObject, type WorkSheet } from '@e965/xlsx';
import Sqlite from 'better-sqlite3';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { parquetWriteBuffer } from 'hyparquet-writer';
import { describe, expect, it } from 'vitest';
import { isMissing, isText, isUnread, type Column } from '$lib/core/table/column';
import { fullCell } from '$lib/core/table/cell';
import { checkArrowFile } from '$lib/core/table/arrowCheck';
import { HeadsDiffer } from '$lib/core/errors';
import { hiddenInOds } from '$lib/core/read/decode/odsHidden';
import { decodeFile } from '$lib/core/read/decode/decode';
import type { HeadSettled } from '$lib/core/read/decode/source';
import { BY_ITSELF, readList, type ReadAs } from '../../../cli/input';
import type { FromDatabase } from '../../../cli/database';

const folder = mkdtempSync(path.join(tmpdir(), 'tally-forms-'));
function fileOf(name: string, bytes: Uint8Array | string): string {
  const file = path.join(folder, name);
  writeFileSync(file, bytes);
  return file;
}
const cells = (column: Column, length: number): (string | null)[] =>
  Array.from({ length }, (_, i) =>
    isUnread(column, i) && !isText(column)
      ? `?${column.unread.get(i)}`
      : isMissing(column, i)
        ? null
        : fullCell(column, i),
  );

/** What a file is read as: each column by its name, type and cells in full. */
async function readAs(name: string, bytes: Uint8Array | string, as: Partial<ReadAs> = {}) {
  const { reading, recipe, doubts } = await readList(fileOf(name, bytes), { ...BY_ITSELF, ...as });
  const { columns, length } = reading.table;
  return {
    recipe,
    doubts: doubts.map(
      ({ kind, count, places }) => [kind, count, places.map((p) => p.text)] as const,
    ),
    columns: columns.map((c) => [c.name, c.type, c.unit, ...cells(c, length)]),
  };
}

/** A workbook of sheets, each a sheet of cells as its format stores them. */
function workbook(
  sheets: Record<string, WorkSheet>,
  bookType: 'xlsx' | 'ods' = 'xlsx',
): Uint8Array {
  const book = utils.book_new();
  for (const [name, sheet] of Object.entries(sheets)) utils.book_append_sheet(book, sheet, name);
  return new Uint8Array(write(book, { type: 'array', bookType, compression: true }) as ArrayBuffer);
}
/** Stored values with their display formats. */
const cell = (v: number, z: string): CellObject => ({ t: 'n', v, z });
const sheetOf = (rows: (string | number | boolean | null | CellObject)[][]): WorkSheet => {
  const sheet: WorkSheet = utils.aoa_to_sheet(
    rows.map((row) => row.map((v) => (v instanceof Object ? null : v))),
  );
  rows.forEach((row, r) =>
    row.forEach((v, c) => {
      if (v instanceof Object) sheet[utils.encode_cell({ r, c })] = v;
    }),
  );
  sheet['!ref'] = utils.encode_range({
    s: { r: 0, c: 0 },
    e: { r: rows.length - 1, c: Math.max(...rows.map((row) => row.length)) - 1 },
  });
  return sheet;
};

describe.each(['xlsx', 'ods'] as const)('a workbook (%s)', (bookType) => {
  it('gives its stored values: all digits, and the day whatever of it is shown', async () => {
    const sheet = sheetOf([
      ['Keld Sound Ferries, sailings'],
      [],
      ['Day', 'Year of it', 'Left', 'Fares', 'Third', 'Cancelled', 'Ticket'],
      // 31 January 2024 is day 45,322 of the 1900 system; a quarter of a day is 06:00.
      [
        cell(45322, 'yyyy-mm-dd'),
        cell(45322, 'yyyy'),
        cell(45322.25, 'yyyy-mm-dd hh:mm'),
        cell(1234.5, '#,##0'),
        1 / 3,
        true,
        '007',
      ],
      [
        cell(45351, 'yyyy-mm-dd'),
        cell(45351, 'yyyy'),
        cell(45351.5, 'yyyy-mm-dd hh:mm'),
        cell(-2, '#,##0'),
        2 / 3,
        false,
        '010',
      ],
      [cell(45352, 'yyyy-mm-dd'), cell(45352, 'yyyy'), null, null, 0.1, false, '9'],
    ]);
    const { columns, recipe } = await readAs(
      `stored.${bookType}`,
      workbook({ Sailings: sheet }, bookType),
    );
    expect(columns).toEqual([
      ['Day', 'date', '', '2024-01-31', '2024-02-29', '2024-03-01'],
      ['Year of it', 'date', '', '2024-01-31', '2024-02-29', '2024-03-01'],
      ['Left', 'datetime', '', '2024-01-31T06:00', '2024-02-29T12:00', null],
      ['Fares', 'number', '', '1234.5', '-2', null],
      ['Third', 'number', '', String(1 / 3), String(2 / 3), '0.1'],
      ['Cancelled', 'yesno', '', 'yes', 'no', 'no'],
      ['Ticket', 'text', '', '007', '010', '9'],
    ]);
    expect(recipe.source).toEqual({ form: 'workbook', part: 'Sailings' });
  });

  it('takes the sheet with most cells, or the one that is named, and says what it left', async () => {
    const sheets = {
      Notes: sheetOf([['read me']]),
      '2024': sheetOf([
        ['a', 'b'],
        ['x', 1],
        ['y', 2],
      ]),
      '2025': sheetOf([
        ['a', 'b'],
        ['z', 3],
      ]),
    };
    const bytes = workbook(sheets, bookType);
    const found = await readAs(`sheets.${bookType}`, bytes);
    expect(found.columns[1]).toEqual(['b', 'number', '', '1', '2']);
    expect(found.doubts.map(([kind, count]) => [kind, count])).toEqual([['otherParts', 2]]);
    const named = await readAs(`sheets.${bookType}`, bytes, { wanted: { part: '2025' } });
    expect(named.columns[1]).toEqual(['b', 'number', '', '3']);
  });

  it('numbers kept as text are a doubt with their places', async () => {
    const sheet = sheetOf([
      ['Route', 'Fares'],
      ['Holm', 1200.5],
      ['Ness', '1300'],
      ['Skerry', 900],
    ]);
    const { columns, doubts } = await readAs(`text.${bookType}`, workbook({ S: sheet }, bookType));
    expect(columns[1]).toEqual(['Fares', 'number', '', '1200.5', '1300', '900']);
    expect(doubts).toEqual([['numbersAsText', 1, ['1300']]]);
  });
});

describe('what is named and is not there', () => {
  const book = workbook({
    Fares: sheetOf([
      ['a', 'b'],
      ['x', 1],
    ]),
    Ports: sheetOf([
      ['c', 'd'],
      ['y', 2],
    ]),
  });
  const csv = 'a,b\nx,1\n';
  it.each([
    ['x.xlsx', book, { wanted: { part: 'Fears' } }, /no sheet “Fears”. It has “Fares”, “Ports”/],
    [
      'x.zip',
      zipSync({ 'a.csv': strToU8(csv) }),
      { wanted: { member: 'b.csv' } },
      /no file “b.csv”. It has “a.csv”/,
    ],
    [
      'x.zip',
      zipSync({ 'a.csv': strToU8(csv), 'b.json': strToU8('[{"a":1}]') }),
      { wanted: { all: true as const } },
      /“b.json” is not delimited text/,
    ],
    ['x.csv', csv, { wanted: { part: 'Fares' } }, /--sheet and --block are of a workbook/],
    ['x.csv', csv, { database: { table: 'a' } }, /of a database/],
    ['y.xlsx', book, { database: { query: 'select 1' } }, /of a database/],
  ])('%s is refused: %#', async (name, bytes, as, words) => {
    await expect(readAs(name, bytes, as)).rejects.toThrow(words);
  });

  it('a refresh reads another in its place, and says so', async () => {
    const { source, doubts } = await decodeFile(book, 1 << 24, { part: 'Fears' }, 'say');
    expect(source.part).toBe('Fares');
    expect(doubts[0].words).toBe(
      'The workbook has no sheet “Fears”. It has “Fares”, “Ports”. “Fares” is read in its place.',
    );
    // Another fault is none of a name.
    await expect(
      decodeFile(book.subarray(0, 900), 1 << 24, { part: 'Fears' }, 'say'),
    ).rejects.toThrow(/unpacked/);
  });
});

describe('a workbook', () => {
  it('cells at fault are unread, hidden rows are read and told, merged ones hold for each row', async () => {
    const sheet = sheetOf([
      ['Route', 'Vessel', 'Fares'],
      ['Holm', 'Gannet', 10],
      [null, 'Tern', { t: 'e', v: 7, w: '#DIV/0!' }],
      ['Ness', 'Skua', 30],
    ]);
    sheet['!merges'] = [{ s: { r: 1, c: 0 }, e: { r: 2, c: 0 } }];
    sheet['!rows'] = [{}, {}, {}, { hidden: true }];
    const { columns, doubts } = await readAs('faults.xlsx', workbook({ S: sheet }));
    expect(columns).toEqual([
      ['Route', 'text', '', 'Holm', 'Holm', 'Ness'],
      ['Vessel', 'text', '', 'Gannet', 'Tern', 'Skua'],
      ['Fares', 'number', '', '10', '?#DIV/0!', '30'],
    ]);
    expect(doubts.map(([kind, count]) => [kind, count])).toEqual([
      ['errorCells', 1],
      ['hidden', 1],
      ['mergedCells', 1],
    ]);
  });

  it('of a sheet with several tables the largest is read, or the one that is named', async () => {
    const sheet = sheetOf([
      ['Route', '2025', null, null, 'Port', 'Piers'],
      ['Route', 'Jan', 'Feb', null, 'Holm', 3],
      ['Holm', 10, 20, null, 'Ness', 2],
      ['Ness', 30, 40, null, null, null],
      ['Ness', 31, 41, null, null, null],
    ]);
    sheet['!merges'] = [
      { s: { r: 0, c: 0 }, e: { r: 1, c: 0 } },
      { s: { r: 0, c: 1 }, e: { r: 0, c: 2 } },
    ];
    const book = workbook({ S: sheet });
    const { columns, doubts, recipe } = await readAs('tables.xlsx', book);
    expect(columns).toEqual([
      ['Route', 'text', '', 'Holm', 'Ness', 'Ness'],
      ['2025 Jan', 'number', '', '10', '30', '31'],
      ['2025 Feb', 'number', '', '20', '40', '41'],
    ]);
    expect(doubts.map(([kind, count]) => [kind, count])).toEqual([
      ['otherParts', 1],
      ['headLines', 1],
      ['mergedCells', 1],
    ]);
    expect(recipe.source).toEqual({ form: 'workbook', part: 'S', block: 1 });
    const other = await readAs('tables.xlsx', book, { wanted: { block: 2 } });
    expect(other.columns).toEqual([
      ['Port', 'text', '', 'Holm', 'Ness'],
      ['Piers', 'number', '', '3', '2'],
    ]);
    const whole = await readAs('tables.xlsx', book, { wanted: { block: 0 } });
    expect(whole.columns.length).toBeGreaterThan(4);
    await expect(readAs('tables.xlsx', book, { wanted: { block: 3 } })).rejects.toThrow(
      'The sheet has no table 3. It has 2 tables: rows 1 to 5',
    );
  });

  it('heads over two lines are joined where their table stands', async () => {
    const sheet = sheetOf([
      ['Keld Sound Ferries'],
      [],
      [null, 'Route', '2025', null, null, 'Port', 'Piers'],
      [null, 'Route', 'Jan', 'Feb', null, 'Holm', 3],
      [null, 'Holm', 10, 20, null, 'Ness', 2],
      [null, 'Ness', 30, 40],
    ]);
    sheet['!merges'] = [{ s: { r: 2, c: 2 }, e: { r: 2, c: 3 } }];
    const { columns } = await readAs('shifted.xlsx', workbook({ S: sheet }));
    expect(columns.map(([name]) => name)).toEqual(['Route', '2025 Jan', '2025 Feb']);
  });

  it('what stands above several tables is counted as not read', async () => {
    const sheet = sheetOf([
      ['Keld Sound Ferries'],
      ['Route', 'Fares', null, 'Port', 'Piers'],
      ['Holm', 10, null, 'Holm', 3],
      ['Ness', 3],
    ]);
    const file = fileOf('titled.xlsx', workbook({ S: sheet }));
    const { doubts } = await readList(file, BY_ITSELF);
    expect(doubts.map(({ words }) => words)).toContainEqual(
      expect.stringMatching(/not read: .*Port, Piers; nor 1 cell outside of them\.$/),
    );
  });

  it('hidden rows and columns of .ods are told as well', async () => {
    const made = unzipSync(
      workbook(
        {
          'Fares & more': sheetOf([
            ['Route', 'Fares'],
            ['Holm', 1],
            ['Ness', 2],
            ['Skerry', 3],
          ]),
        },
        'ods',
      ),
    );
    let row = 0;
    const content = strFromU8(made['content.xml'])
      .replace(/<table:table-row/g, (tag) =>
        ++row === 3 ? `${tag} table:visibility="filter"` : tag,
      )
      .replace(/<table:table-column/, '$& table:visibility="collapse"');
    const { mimetype, ...rest } = made;
    const bytes = zipSync({
      mimetype: [mimetype, { level: 0 }],
      ...rest,
      'content.xml': strToU8(content),
    });
    const { doubts, columns } = await readAs('hidden.ods', bytes);
    expect(columns[0].slice(3)).toEqual(['Holm', 'Ness', 'Skerry']);
    const hidden = doubts.filter(([kind]) => kind === 'hidden');
    expect(hidden.map(([, count]) => count)).toContain(1);
    expect([...hiddenInOds(bytes, 1e6)]).toMatchObject([['Fares & more', { rows: [3] }]]);
  });

  it('counts days as its program did: none is the 29th of February 1900, and 1904 may be the first', async () => {
    const days = (serials: number[]): WorkSheet =>
      sheetOf([['Name', 'Day'], ...serials.map((v, k) => [`r${k}`, cell(v, 'dd/mm/yyyy')])]);
    const { columns } = await readAs('serial.xlsx', workbook({ S: days([1, 59, 61, 45322]) }));
    expect(columns[1].slice(3)).toEqual(['1900-01-01', '1900-02-28', '1900-03-01', '2024-01-31']);
    const book = utils.book_new();
    utils.book_append_sheet(book, days([0, 43860]), 'S');
    book.Workbook = { WBProps: { date1904: true } };
    const bytes = new Uint8Array(write(book, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer);
    expect((await readAs('1904.xlsx', bytes)).columns[1].slice(3)).toEqual([
      '1904-01-01',
      '2024-01-31',
    ]);
  });

  it('a currency or a word of the format is the unit', async () => {
    const sheet = sheetOf([
      ['Route', 'Fares', 'Delay'],
      ['Holm', cell(10.5, '"£"#,##0.00'), cell(4, '0" min"')],
      ['Ness', cell(11, '[$£-809]#,##0.00'), cell(6, '0" min"')],
    ]);
    const { columns } = await readAs('units.xlsx', workbook({ S: sheet }));
    expect(columns.map((c) => c[2])).toEqual(['', '£', 'min']);
  });
});

describe('JSON', () => {
  const records = [
    { day: '2024-01-31', vessel: { name: 'Gannet', seats: 300 }, fares: 10.25, late: false },
    { day: '2024-02-29', vessel: { name: 'Tern' }, fares: null, late: true, note: 'a, "b"\nc' },
  ];
  const columns = [
    ['day', 'date', '', '2024-01-31', '2024-02-29'],
    ['vessel.name', 'text', '', 'Gannet', 'Tern'],
    ['vessel.seats', 'number', '', '300', null],
    ['fares', 'number', '', '10.25', null],
    ['late', 'yesno', '', 'no', 'yes'],
    ['note', 'text', '', null, 'a, "b"\nc'],
  ];
  it.each([
    ['array', JSON.stringify(records)],
    ['lines', records.map((r) => JSON.stringify(r)).join('\n')],
    ['object', JSON.stringify({ made: 'today', records, tags: ['x'] })],
  ])('as %s, fields within fields by their path', async (how, text) => {
    expect((await readAs(`${how}.json`, text)).columns).toEqual(columns);
  });

  it('keeps all digits of a number that no number here holds', async () => {
    const { columns: read } = await readAs(
      'big.json',
      '[{"k":"a","id":12345678901234567891},{"k":"b","id":2}]',
    );
    expect(read[1].slice(3)).toEqual(['12345678901234567891', '2']);
  });

  it.each([
    ['[{"a":1},2]', /Element 2/],
    ['{"a":1}\n{"a":', /Line 2 is not JSON/],
    ['[{}]', /no objects with fields/],
    ['{"a":[{"x":1}],"b":[{"y":2}]}', /none that stands alone/],
  ])('%s is refused with its place', async (text, words) => {
    await expect(readAs('bad.json', text)).rejects.toThrow(words);
  });
});

describe('Arrow and Parquet', () => {
  const want = [
    ['Route', 'text', '', 'Holm', null, 'Ness'],
    ['Fares', 'number', '', '10.25', null, '-0.1'],
    ['Day', 'date', '', '2024-01-31', '1969-12-31', null],
  ];
  it('an Arrow file and a stream keep their types, without a guess', async () => {
    const made = {
      Route: vectorFromArray(['Holm', null, 'Ness']),
      Fares: vectorFromArray([10.25, null, -0.1]),
      Day: vectorFromArray(
        [new Date(Date.UTC(2024, 0, 31)), new Date(Date.UTC(1969, 11, 31)), null],
        new DateDay(),
      ),
      Ticket: vectorFromArray(['1', '2', '3'], new Utf8()),
      Long: vectorFromArray([1n, 2n, 9007199254740993n], new Int64()),
    };
    for (const how of ['file', 'stream'] as const) {
      const { columns } = await readAs(`made.${how}`, tableToIPC(new Table(made), how));
      expect(columns).toEqual([
        ...want,
        ['Ticket', 'text', '', '1', '2', '3'],
        ['Long', 'text', '', '1', '2', '9007199254740993'],
      ]);
    }
  });

  it('a file whose footer names records outside of it is refused before they are looked for', () => {
    const bytes = tableToIPC(new Table({ n: vectorFromArray([1, 2, 3]) }), 'file');
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    expect(() => checkArrowFile(bytes)).not.toThrow();
    // The records begin behind the mark of eight bytes: their block says so, then how long they are.
    const end = bytes.length - 10;
    const footer = end - view.getInt32(end, true);
    let block = footer;
    while (view.getBigInt64(block, true) !== 8n) block++;
    view.setBigInt64(block + 16, 1n << 40n, true);
    expect(() => checkArrowFile(bytes)).toThrow(/lies outside/);
  });

  it('a file whose records say another length than its footer is refused: a negative one was read for ever', () => {
    const bytes = tableToIPC(new Table({ n: vectorFromArray([1, 2, 3]) }), 'file');
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    // The records begin behind the mark of eight bytes.
    expect(view.getUint32(8, true)).toBe(0xffffffff);
    view.setInt32(12, -8, true);
    expect(() => checkArrowFile(bytes)).toThrow(/lies outside/);
  });

  it('days that no calendar has, and parts of a day, are unread with what was stored', async () => {
    const DAY = 86_400_000;
    const day = (ms: number): Date => new Date(ms);
    const made = {
      Day: vectorFromArray(
        [0, 1, 2].map((d) => day(d * DAY)),
        new DateDay(),
      ),
    };
    const table = new Table(made);
    // The stored days themselves: a year beyond 9999, the last that there is, one before year 1.
    table.getChild('Day')?.data[0].values.set([2_932_897, 2_932_896, -719_163]);
    const { columns } = await readAs('far.arrow', tableToIPC(table, 'file'));
    expect(columns).toEqual([['Day', 'date', '', '?2932897', '9999-12-31', '?-719163']]);
  });

  it('a Parquet file likewise', async () => {
    const bytes = parquetWriteBuffer({
      columnData: [
        { name: 'Route', data: ['Holm', null, 'Ness'], type: 'STRING' },
        { name: 'Fares', data: [10.25, null, -0.1], type: 'DOUBLE' },
        {
          name: 'Left',
          data: [new Date(Date.UTC(2024, 0, 31, 8, 30)), null, new Date(0)],
          type: 'TIMESTAMP',
        },
        { name: 'Late', data: [true, false, null], type: 'BOOLEAN' },
        { name: 'Long', data: [1n, null, 9007199254740993n], type: 'INT64' },
        { name: 'Count', data: [1n, null, 3n], type: 'INT64' },
      ],
    });
    const { columns } = await readAs('made.parquet', new Uint8Array(bytes));
    expect(columns).toEqual([
      ...want.slice(0, 2),
      ['Left', 'datetime', '', '2024-01-31T08:30', null, '1970-01-01T00:00'],
      ['Late', 'yesno', '', 'yes', 'no', null],
      ['Long', 'text', '', '1', null, '9007199254740993'],
      ['Count', 'number', '', '1', null, '3'],
    ]);
  });

  it('a recipe reads a column as another type, from its cells', async () => {
    const bytes = parquetWriteBuffer({
      columnData: [{ name: 'Code', data: ['1', 'x', '3'], type: 'STRING' }],
    });
    const { columns } = await readAs('code.parquet', new Uint8Array(bytes), {
      types: new Map([['Code', 'number']]),
    });
    expect(columns).toEqual([['Code', 'number', '', '1', '?x', '3']]);
  });
});

describe('fixed-width text', () => {
  const lines = [
    'Route         Vessel      Fares taken   Day',
    'Holm          Gannet         1,210.25   2024-01-31',
    'Outer Freight Ironholm           3.00   2024-02-01',
    'Ness          Little Auk        12.50   2024-02-02',
    '              Skua               7.00   2024-02-03',
  ];
  it('is cut where every line is blank, and read as any other', async () => {
    const { columns, recipe } = await readAs('fixed.txt', `${lines.join('\n')}\n`);
    // “Outer Freight Ironholm” has one blank between: no gutter, so both stand in one column.
    expect(recipe.source).toEqual({ form: 'fixed', cuts: [0, 26, 40] });
    expect(columns[1]).toEqual(['Fares taken', 'number', '', '1210.25', '3', '12.5', '7']);
    expect(columns[2]).toEqual([
      'Day',
      'date',
      '',
      '2024-01-31',
      '2024-02-01',
      '2024-02-02',
      '2024-02-03',
    ]);
    const again = await readAs('fixed.txt', `${lines.join('\n')}\n`, {
      wanted: { cuts: [0, 14, 26, 40] },
    });
    expect(again.columns.slice(0, 2)).toEqual([
      ['Route', 'text', '', 'Holm', 'Outer Freight', 'Ness', null],
      ['Vessel', 'text', '', 'Gannet', 'Ironholm', 'Little Auk', 'Skua'],
    ]);
  });

  it.each([
    'a,b\n1,2\n3,4\n5,6\n7,8\n',
    'a  b\nx\ty\nx  z\nx  q\nx  w\n',
    'one\ntwo\nthree\nfour\nfive\n',
  ])('delimited text and single columns are none: %j', async (text) => {
    expect((await readAs('plain.txt', text)).recipe.source).toBeUndefined();
  });
});

describe('a SQLite database', () => {
  const file = path.join(folder, 'ferry.sqlite');
  const db = new Sqlite(file);
  db.exec(`create table sailings (day text, route text, fares real, ticket integer, "odd ""name" blob);
    insert into sailings values ('2024-01-31', 'Holm', 10.25, 1, x'00ff'), ('2024-02-01', null, 1e3, 9007199254740993, null);
    create table ports (name text); insert into ports values ('Ness')`);
  db.close();
  const read = async (database: FromDatabase) => {
    const { reading } = await readList(file, { ...BY_ITSELF, database });
    return reading.table.columns.map((c) => [c.name, c.type, ...cells(c, reading.table.length)]);
  };

  it('gives a table with its numbers as they are, or what a query comes to', async () => {
    expect(await read({ table: 'Sailings' })).toEqual([
      ['day', 'date', '2024-01-31', '2024-02-01'],
      ['route', 'text', 'Holm', null],
      ['fares', 'number', '10.25', '1000'],
      ['ticket', 'text', '1', '9007199254740993'],
      ['odd "name', 'text', "x'00ff'", null],
    ]);
    const query = 'select route, sum(fares) as fares from sailings group by 1 order by 1 desc';
    expect((await read({ query }))[1]).toEqual(['fares', 'number', '10.25', '1000']);
  });

  it.each([
    [{}, /Name the table with --table.*“ports”, “sailings”/],
    [{ table: 'x' }, /There is no table “x”/],
    [{ query: 'delete from ports' }, /has to be a SELECT/],
    [{ query: 'select gone' }, /no such column/],
  ])('%j is refused, and nothing is changed', async (database, words) => {
    await expect(read(database)).rejects.toThrow(words);
    expect((await read({ table: 'ports' }))[0].at(-1)).toBe('Ness');
  });
});

describe('packed files', () => {
  const csv = 'Route,Fares\nHolm,10.25\nNess,3\n';
  const columns = [
    ['Route', 'text', '', 'Holm', 'Ness'],
    ['Fares', 'number', '', '10.25', '3'],
  ];
  it('are read as what is in them', async () => {
    expect((await readAs('a.csv.gz', gzipSync(csv))).columns).toEqual(columns);
    const zip = zipSync({
      'notes/': new Uint8Array(0),
      '__MACOSX/a.csv': strToU8('x'),
      'a.csv': strToU8(csv),
      'b.json': strToU8('[{"n":1}]'),
    });
    const read = await readAs('two.zip', zip);
    expect([read.columns, read.recipe.source]).toEqual([
      columns,
      { form: 'delimited', packed: 'zip', member: 'a.csv' },
    ]);
    expect((await readAs('two.zip', zip, { wanted: { member: 'b.json' } })).columns).toEqual([
      ['n', 'number', '', '1'],
    ]);
    const sheet = workbook({
      S: sheetOf([
        ['Route', 'Fares'],
        ['Holm', 10.25],
        ['Ness', 3],
      ]),
    });
    expect((await readAs('b.xlsx.gz', gzipSync(sheet))).columns).toEqual(columns);
  });

  it('several of one shape are one list, each record with its file; columns by their headings', async () => {
    const zip = zipSync({
      'January.csv': strToU8('Route,Fares\nHolm,10.25\nNess,3\n'),
      'February.csv': strToU8('Fares;Route\n7;Holm\n\n8.5;Skerry\n'),
    });
    const { columns: read, recipe } = await readAs('months.zip', zip);
    expect(read).toEqual([
      ['File', 'text', '', 'January.csv', 'January.csv', 'February.csv', 'February.csv'],
      ['Route', 'text', '', 'Holm', 'Ness', 'Holm', 'Skerry'],
      ['Fares', 'number', '', '10.25', '3', '7', '8.5'],
    ]);
    expect(recipe.source).toEqual({ form: 'delimited', packed: 'zip', all: true });
    const one = await readAs('months.zip', zip, { wanted: { member: 'February.csv' } });
    expect(one.columns.map(([name]) => name)).toEqual(['Fares', 'Route']);
  });

  it('several of other shapes are read one at a time, and asked for together they say why not', async () => {
    const zip = zipSync({
      'a.csv': strToU8('Route,Fares\nHolm,10\n'),
      'b.csv': strToU8('Route,Delay,Cause\nHolm,4,fog\n'),
    });
    const { recipe } = await readAs('shapes.zip', zip);
    expect(recipe.source?.member).toBe('a.csv');
    await expect(readAs('shapes.zip', zip, { wanted: { all: true } })).rejects.toThrow(
      '“b.csv” lacks “Fares”, “a.csv” lacks “Delay”, “a.csv” lacks “Cause”',
    );
  });

  describe('whose columns differ', () => {
    const zip = zipSync({
      'January.csv': strToU8('Day,Route,Fares,Fog\n1,Holm,10.25,yes\n'),
      'February.csv': strToU8('Day,Fare,Route\n2,7,Ness\n'),
      'March.csv': strToU8('Route,Day,Fare,Crew\nSkerry,3,8.5,4\n'),
    });
    const settled = (heads: Record<string, HeadSettled>) =>
      readAs('differ.zip', zip, { wanted: { all: true, heads } });

    it('are not read before it is said what each column is', async () => {
      const error: unknown = await decodeFile(zip, 1e6, {}).catch((e: unknown) => e);
      expect(error).toBeInstanceOf(HeadsDiffer);
      expect(error).toMatchObject({
        files: ['January.csv', 'February.csv', 'March.csv'],
        heads: [
          { head: 'Fares', lackedBy: ['February.csv', 'March.csv'], others: ['Fare', 'Crew'] },
          { head: 'Fog', lackedBy: ['February.csv', 'March.csv'], others: ['Fare', 'Crew'] },
          { head: 'Fare', lackedBy: ['January.csv'], others: ['Fares', 'Fog'] },
          { head: 'Crew', lackedBy: ['January.csv', 'February.csv'], others: ['Fares', 'Fog'] },
        ],
      });
      await expect(settled({ Fares: 'own', Fog: 'own', Fare: 'out' })).rejects.toThrow(/“Crew”/);
    });

    it('are one list then: another name, a column of its own, one left out', async () => {
      const { columns, recipe } = await settled({
        Fares: 'own',
        fare: { sameAs: 'Fares' },
        Fog: 'out',
        Crew: 'own',
      });
      expect(columns).toEqual([
        ['File', 'text', '', 'January.csv', 'February.csv', 'March.csv'],
        ['Day', 'number', '', '1', '2', '3'],
        ['Route', 'text', '', 'Holm', 'Ness', 'Skerry'],
        ['Fares', 'number', '', '10.25', '7', '8.5'],
        ['Crew', 'number', '', null, null, '4'],
      ]);
      // The recipe keeps it: next month's files are put together by themselves.
      const again = await readList(fileOf('again.zip', zip), { ...BY_ITSELF, recipe });
      expect(again.reading.table.columns.map((c) => c.name)).toEqual(columns.map(([name]) => name));
    });

    it('a column is the same as one of its own, not as one left out or renamed itself', async () => {
      const rest = { Fog: 'out', Crew: 'out' } as const;
      await expect(settled({ ...rest, Fares: 'out', Fare: { sameAs: 'Fares' } })).rejects.toThrow(
        '“fare” cannot be the same as “Fares”',
      );
      await expect(
        settled({ ...rest, Fares: { sameAs: 'Crew' }, Fare: { sameAs: 'Fares' } }),
      ).rejects.toThrow(/cannot be the same as/);
    });

    it('two columns of one file are not one', async () => {
      await expect(
        settled({ Fares: 'own', Fare: 'own', Fog: { sameAs: 'Fares' }, Crew: 'out' }),
      ).rejects.toThrow('“January.csv” has both “fog” and “Fares”: they are two columns.');
    });
  });

  it('what is damaged is refused, and never read in part', async () => {
    const packed = gzipSync(csv);
    await expect(readAs('short.gz', packed.subarray(0, packed.length - 9))).rejects.toThrow(
      /unpacked/,
    );
    const wrong = zipSync({ 'a.csv': [strToU8(csv), { level: 0 }] });
    wrong[wrong.indexOf('1'.charCodeAt(0), 40)] ^= 1;
    await expect(readAs('wrong.zip', wrong)).rejects.toThrow(/“a.csv” in it is damaged/);
  });
});
