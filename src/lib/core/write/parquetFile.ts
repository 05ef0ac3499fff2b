import { parquetWriteBuffer } from 'hyparquet-writer';
import { DAY_MS } from '../table/calendar';
import { isText, type Column } from '../table/column';
import type { Table } from '../table/table';

type SchemaElement = NonNullable<Parameters<typeof parquetWriteBuffer>[0]['schema']>[number];

/** The stored and the meant type of each of ours (Parquet's `LogicalTypes.md`). */
const ELEMENTS: Readonly<Record<Column['type'], Omit<SchemaElement, 'name'>>> = {
  text: { type: 'BYTE_ARRAY', converted_type: 'UTF8', repetition_type: 'OPTIONAL' },
  number: { type: 'DOUBLE', repetition_type: 'OPTIONAL' },
  date: { type: 'INT32', converted_type: 'DATE', repetition_type: 'OPTIONAL' },
  datetime: { type: 'INT64', converted_type: 'TIMESTAMP_MILLIS', repetition_type: 'OPTIONAL' },
  time: { type: 'INT32', converted_type: 'TIME_MILLIS', repetition_type: 'OPTIONAL' },
  yesno: { type: 'BOOLEAN', repetition_type: 'OPTIONAL' },
};

/** A list as a Parquet file, its types kept. */
export function parquetFile({ columns, length }: Table): Uint8Array {
  const bytes = parquetWriteBuffer({
    columnData: columns.map((column) => ({ name: column.name, data: dataOf(column, length) })),
    schema: [
      { name: 'root', num_children: columns.length },
      ...columns.map(({ name, type }): SchemaElement => ({ name, ...ELEMENTS[type] })),
    ],
    createdBy: 'Tally Loft',
  });
  return new Uint8Array(bytes);
}

function dataOf(column: Column, length: number): unknown[] {
  if (isText(column))
    return Array.from({ length }, (_, i) =>
      column.codes[i] < 0 ? null : column.dictionary[column.codes[i]],
    );
  const { values, type } = column;
  const made = (v: number): unknown => {
    switch (type) {
      case 'number':
      case 'time':
        return v;
      case 'date':
        return new Date(v * DAY_MS);
      case 'datetime':
        return new Date(v);
      case 'yesno':
        return v === 1;
    }
  };
  return Array.from({ length }, (_, i) => (values[i] === values[i] ? made(values[i]) : null));
}
