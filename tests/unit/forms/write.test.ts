import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { read, type CellObject } from '@e965/xlsx';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import { finish } from '$lib/core/task/task';
import { isText, scalarColumn, textColumn, type Column } from '$lib/core/table/column';
import { fullCell } from '$lib/core/table/cell';
import type { Table } from '$lib/core/table/table';
import { formOfAccept, formOfName, OUT_FORMS, type OutForm } from '$lib/core/write/forms';
import { resultFile } from '$lib/core/write/resultFile';
import { recordsSheet } from '$lib/core/write/sheets';
import { RECORD_FORMS, tableFile } from '$lib/core/write/tableFile';
import { workbookFile } from '$lib/core/write/workbookFile';
import { BY_ITSELF, readList } from '../../../cli/input';

const folder = mkdtempSync(path.join(tmpdir(), 'tally-write-'));
const cells = (column: Column, length: number): string[] =>
  Array.from({ length }, (_, i) => fullCell(column, i));
const seen = ({ columns, length }: Table) =>
  columns.map((c) => ({ name: c.name, type: c.type, unit: c.unit, cells: cells(c, length) }));
async function back(bytes: Uint8Array, form: OutForm): Promise<Table> {
  const file = path.join(folder, `back.${form}`);
  writeFileSync(file, bytes);
  return (await readList(file, BY_ITSELF)).reading.table;
}

describe('the records of every demo list, written and read again', () => {
  const files = readdirSync('demo').filter((name) => name.endsWith('.csv'));
  const TYPED = ['xlsx', 'ods', 'arrow', 'parquet'] as const;
  it.each(files.flatMap((file) => TYPED.map((form) => [file, form] as const)))(
    '%s as %s is the same cell by cell',
    async (file, form) => {
      const { table } = (await readList(path.join('demo', file), BY_ITSELF)).reading;
      // A workbook of the longest would only take long.
      const length =
        form === 'xlsx' || form === 'ods' ? Math.min(table.length, 1500) : table.length;
      const columns = table.columns.map((c): Column =>
        isText(c)
          ? { ...c, codes: c.codes.slice(0, length) }
          : {
              ...c,
              values: c.values.slice(0, length),
              unread: new Map([...c.unread].filter(([at]) => at < length)),
            },
      );
      const list = { length, columns };
      const again = await back(
        (await tableFile({ name: file, table: list, notes: [] }, form)).bytes,
        form,
      );
      const want = seen(list);
      // A format without a place for units keeps all else; one without text among numbers leaves it blank.
      const bare = form === 'parquet';
      expect(seen(again).map((c, k) => ({ ...c, unit: bare ? want[k].unit : c.unit }))).toEqual(
        want.map((c, k) => {
          const column = columns[k];
          return bare && !isText(column)
            ? { ...c, cells: c.cells.map((text, i) => (column.unread.has(i) ? '' : text)) }
            : c;
        }),
      );
    },
  );
});

const list: Table = {
  length: 4,
  columns: [
    textColumn('Route', ['Holm', '=1+1', null, 'Holm']),
    scalarColumn('Day', 'date', [19753, 19753, -25600, null]),
    scalarColumn('Fares', 'number', [10.25, -3, 1 / 3, null], {
      decimals: 2,
      unit: '£',
      unread: new Map([[3, 'n/k']]),
    }),
    scalarColumn('Left', 'time', [29_400_000, 0, null, 1000]),
    scalarColumn('Late', 'yesno', [1, 0, null, 1]),
  ],
};

describe('a workbook', () => {
  it('has true numbers, dates and texts; what begins like a formula is a text', () => {
    const book = read(workbookFile([recordsSheet('Sailings', list, ['All of them'])], 'xlsx'), {
      type: 'array',
      dense: true,
      cellNF: true,
      cellFormula: true,
    });
    const rows: (CellObject | undefined)[][] = book.Sheets.Sailings['!data'] ?? [];
    expect(rows[0][0]).toMatchObject({ t: 's', v: 'All of them' });
    expect(rows[2].map((c) => c?.v)).toEqual(['Route', 'Day', 'Fares (£)', 'Left', 'Late']);
    // 31 January 2024 is day 45,322; 08:10 is 29,400 of 86,400 seconds.
    expect(rows[3].map((c) => [c?.t, c?.v])).toEqual([
      ['s', 'Holm'],
      ['n', 45322],
      ['n', 10.25],
      ['n', 29_400 / 86_400],
      ['b', true],
    ]);
    expect(rows[3][2]?.z).toBe('#,##0.00');
    expect(rows[4][0]).toMatchObject({ t: 's', v: '=1+1' });
    expect(rows[4][0]).not.toHaveProperty('f');
    // Before March 1900 programs do not agree on the days.
    expect(rows[5][1]).toMatchObject({ t: 's', v: '1899-11-29' });
    expect(rows[6][2]).toMatchObject({ t: 's', v: 'n/k' });
  });

  it('keeps heads in sight with the notes above them, and none where they would take the screen', () => {
    const views = [[], ['All of them'], Array.from({ length: 20 }, (_, k) => `Note ${k}`)].map(
      (notes) => {
        const parts = unzipSync(workbookFile([recordsSheet('S', list, notes)], 'xlsx'));
        const xml = strFromU8(parts['xl/worksheets/sheet1.xml']);
        return /<sheetViews>(.*?)<\/sheetViews>/.exec(xml)?.[1];
      },
    );
    const frozen = (rows: number): string =>
      `<sheetView workbookViewId="0"><pane ySplit="${rows}" topLeftCell="A${rows + 1}" activePane="bottomLeft" state="frozen"/></sheetView>`;
    expect(views).toEqual([frozen(1), frozen(3), '<sheetView workbookViewId="0"/>']);
  });

  it('marks its heads as header rows in .ods, below their notes', () => {
    const sheets = [recordsSheet('A', list, []), recordsSheet('B', list, ['All of them'])];
    const parts = unzipSync(workbookFile(sheets, 'ods'));
    const xml = strFromU8(parts['content.xml']);
    const marked = [...xml.matchAll(/<table:table-header-rows>(.*?)<\/table:table-header-rows>/gs)];
    expect(
      marked.map(([, row]) => [...row.matchAll(/<text:p>(.*?)<\/text:p>/g)].map((m) => m[1])),
    ).toEqual(
      [list, list].map(({ columns }) =>
        columns.map(({ name, unit }) => (unit ? `${name} (${unit})` : name)),
      ),
    );
    // The kind stands first, and as it is.
    const bytes = workbookFile(sheets, 'ods');
    expect(strFromU8(bytes.subarray(30, 30 + 54))).toBe(
      'mimetypeapplication/vnd.oasis.opendocument.spreadsheet',
    );
  });

  it('names its sheets apart, whatever they are called', () => {
    const sheets = ['a/b', 'A:B', 'x'.repeat(40), 'x'.repeat(40), ''].map((name) =>
      recordsSheet(name, list, []),
    );
    const { SheetNames: names } = read(workbookFile(sheets, 'ods'), { type: 'array' });
    expect(names).toEqual(['a b', 'A B 2', 'x'.repeat(31), `${'x'.repeat(29)} 2`, 'Sheet']);
  });

  it('is refused where there are more rows than it can hold', async () => {
    const long: Table = { length: 1_048_576, columns: [] };
    await expect(tableFile({ name: 'L', table: long, notes: [] }, 'xlsx')).rejects.toThrow(
      /“L” has 1,048,576 rows; a sheet of a workbook holds 1,048,576/,
    );
  });
});

describe('an answer', () => {
  const ask = readAsk({
    ladder: {
      rungs: [{ condition: { kind: 'leaf', column: 'Route', not: true, test: { test: 'blank' } } }],
    },
    tallies: [
      {
        kind: 'ledger',
        title: 'By | route',
        groups: [{ column: 'Route' }],
        measures: [{ kind: 'sum', column: 'Fares' }],
      },
      { kind: 'periods', column: 'Day', levels: ['year'], measures: [{ kind: 'records' }] },
    ],
  });
  const { result } = finish(answerAsk({ name: 'Sailings', table: list, others: new Map() }, ask));
  const text = async (form: OutForm): Promise<string> =>
    new TextDecoder().decode((await resultFile(result, form)).bytes);

  it('as a workbook: a sheet that says what counts, then one for each tally', async () => {
    const book = read((await resultFile(result, 'xlsx')).bytes, {
      type: 'array',
      dense: true,
      cellStyles: true,
    });
    expect(book.SheetNames).toEqual(['About', '1 By | route', '2 periods']);
    const about = (book.Sheets.About['!data'] ?? []).flat().map((c) => c?.v);
    expect(about).toContain('Sailings: 4 records');
    expect(about).toContain('3 records counted');
    expect(about).toContain(result.tallies[0].words);
    const rows = book.Sheets['1 By | route']['!data'] ?? [];
    expect(rows.at(-1)?.map((c) => c?.v)).toEqual(['Holm', 2, 10.25]);
    // Rows within the total stand in a group that folds.
    expect(book.Sheets['1 By | route']['!rows']?.at(-1)?.level).toBe(1);
  });

  it('as Markdown and as a page: figures as shown, marks of the form harmless', async () => {
    const md = await text('md');
    expect(md).toContain('## By \\| route');
    expect(md).toContain('| Holm | 2 | 10.25 |');
    expect(md).toContain('- 3 records counted');
    const html = await text('html');
    expect(html).toContain('<h2>By | route</h2>');
    expect(html).toMatch(/<th scope="row"[^>]*>Holm<\/th><td[^>]*>2<\/td><td[^>]*>10\.25<\/td>/);
    expect(html).not.toMatch(/<script|src=|href=/);
  });

  it('as Arrow: the rows of one tally; several are refused with a way out', async () => {
    await expect(resultFile(result, 'arrow')).rejects.toThrow(
      /one table, and 2 tallies were asked for/,
    );
    const one = { ...result, tallies: result.tallies.slice(1) };
    for (const form of ['arrow', 'parquet'] as const) {
      const table = await back((await resultFile(one, form)).bytes, form);
      const { type, cells: years } = seen(table)[0];
      expect([type, years[0], years.at(-1)]).toEqual(['date', '2024-01-01', '2024-01-01']);
      const records = seen(table).find(({ name }) => name.includes('records'));
      expect([records?.type, records?.cells.at(-1)]).toEqual(['number', '2']);
    }
  });
});

describe('forms', () => {
  it('are found by the ending of a name and by what a program accepts', () => {
    expect(OUT_FORMS.map((form) => formOfName(`a.b.${form.toUpperCase()}`))).toEqual([
      ...OUT_FORMS,
    ]);
    expect(formOfName('csv')).toBeNull();
    expect(formOfAccept('text/html;q=0.5, text/csv, application/json;q=0.9')).toBe('csv');
    expect(formOfAccept('text/csv;q=0, application/json;q=0.1')).toBe('json');
    expect(formOfAccept('*/*')).toBeNull();
    expect(RECORD_FORMS.every((form) => OUT_FORMS.includes(form))).toBe(true);
  });
});
