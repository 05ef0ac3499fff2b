import type { TableColumn } from '$lib/engine/protocol';

/** A column of a figure table as the page gets it, with nothing said of it. */
export const tableColumn = (key: string, more: Partial<TableColumn> = {}): TableColumn => ({
  key,
  title: key,
  unit: '',
  type: 'text',
  right: false,
  opens: false,
  scalar: false,
  whole: false,
  words: '',
  measure: '',
  of: '',
  over: '',
  ...more,
});
