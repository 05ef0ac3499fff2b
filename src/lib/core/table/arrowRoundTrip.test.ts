import { BadArrow } from '../errors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CHUNK_RECORDS } from './arrowFacts';
import { TableAssembler } from './arrowRead';
import { chunkCount, encodeChunk } from './arrowWrite';
import { scalarColumn, textColumn, type Column } from './column';
import { fullCell } from './cell';
import type { Table } from './table';

const through = (table: Table): Table => {
  const assembler = new TableAssembler(table.length);
  for (let n = 0; n < chunkCount(table); n++) assembler.push(encodeChunk(table, n));
  return assembler.finish();
};

const cells = (column: Column, length: number): string[] =>
  Array.from({ length }, (_, i) => fullCell(column, i));

describe('tables as Arrow', () => {
  it('come back as they were, blanks, unread texts and any script included', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.option(fc.string({ unit: 'grapheme' })),
            fc.option(fc.double({ noNaN: true })),
            fc.option(fc.integer({ min: -700_000, max: 2_900_000 })),
            fc.option(fc.boolean()),
          ),
          { maxLength: 60 },
        ),
        (rows) => {
          const table: Table = {
            length: rows.length,
            columns: [
              textColumn(
                'words',
                rows.map((r) => r[0]),
              ),
              scalarColumn(
                'number',
                'number',
                rows.map((r) => r[1]),
                {
                  decimals: 2,
                  unit: '£',
                  unread: new Map(
                    rows.flatMap((r, i) => (r[1] === null && i % 2 ? [[i, `${i} min`]] : [])),
                  ),
                },
              ),
              scalarColumn(
                'day',
                'date',
                rows.map((r) => r[2]),
                { grain: 'month' },
              ),
              scalarColumn(
                'when',
                'datetime',
                rows.map((r) => (r[2] === null ? null : r[2] * 1000)),
              ),
              scalarColumn(
                'yes',
                'yesno',
                rows.map((r) => (r[3] === null ? null : Number(r[3]))),
              ),
            ],
          };
          const back = through(table);
          expect(
            back.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })),
          ).toEqual(table.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })));
          back.columns.forEach((column, k) =>
            expect(cells(column, rows.length)).toEqual(cells(table.columns[k], rows.length)),
          );
        },
      ),
      { numRuns: 60 },
    );
  });

  it('keep dictionaries of several chunks together', () => {
    const length = CHUNK_RECORDS + 5;
    const table: Table = {
      length,
      columns: [
        textColumn(
          't',
          Array.from({ length }, (_, i) => (i < CHUNK_RECORDS ? `a${i % 3}` : `b${i}`)),
        ),
      ],
    };
    expect(chunkCount(table)).toBe(2);
    expect(cells(through(table).columns[0], length)).toEqual(cells(table.columns[0], length));
  });

  it('refuse what is not a list of ours, and a wrong number of records', () => {
    expect(() => new TableAssembler(1).push(new Uint8Array([1, 2, 3, 4]))).toThrow(BadArrow);
    const table: Table = { length: 2, columns: [textColumn('t', ['a', 'b'])] };
    const few = new TableAssembler(3);
    few.push(encodeChunk(table, 0));
    expect(() => few.finish()).toThrow('2 records, not 3');
    const many = new TableAssembler(1);
    expect(() => many.push(encodeChunk(table, 0))).toThrow(BadArrow);
  });
});
