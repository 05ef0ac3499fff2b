import type { Row, TableHead } from '../../engine/protocol';
import { isSpan } from './source';

/** Of a row in levels, the label of its own level; of others, the last there is. */
export function levelLabel(head: TableHead, row: Row): string {
  const texts = row.cells.slice(0, head.labels).filter((_, c) => !isSpan(head, c));
  return texts[Math.min(row.level, texts.length) - 1] || (texts.findLast(Boolean) ?? '');
}

/** Where nothing can stand (a total of what does not add up) the cell is empty, not “none”. */
export const cellText = (head: TableHead, row: Row, column: number): string =>
  row.kind !== 'group' && row.open === null && row.figures[column] === null && column >= head.labels
    ? ''
    : row.cells[column];

type Mark = Row['marks'][number];

/** What is marked of a figure. */
export const marksOf = ({ marks }: Row, column: number): Mark[] =>
  marks.filter((mark) => mark.column === column);

/** What is marked of a whole row; that it is ahead of time its place says. */
export const rowMark = ({ marks }: Row): Mark | undefined =>
  marks.find((mark) => mark.column === undefined && mark.kind !== 'forecast');

const WORDS: Readonly<Partial<Record<Mark['kind'], string>>> = {
  partial: 'in part',
  rests: 'rests on one record',
  tie: 'tie',
  doubt: 'doubt',
  heldOut: 'held out for testing',
};

/** A mark in a word or two, beside what it marks. */
export const markWords = ({ kind, short }: Mark): string => short ?? WORDS[kind] ?? 'few';
