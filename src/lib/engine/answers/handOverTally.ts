import { EngineError } from '../../core/errors';
import type { Steps } from '../../core/steps/steps';
import { counted, headOf, showCount } from '../../core/table/format';
import { namesOf } from '../../core/table/table';
import { describeCondition } from '../../core/scope/describe';
import type { Answer, AnswerTable } from '../../core/tally/answer';
import { count } from '../../core/table/bitset';
import { figureText, fullFigure } from '../../core/tally/figureText';
import { rowsInView } from '../../core/tally/rowOrder';
import {
  gridOf,
  textLine,
  toDelimited,
  toHtml,
  type Cell,
  type Grid,
  type LineDialect,
} from '../../core/write/grid';
import type { Held } from '../held';
import type { ReplyOf } from '../protocol';
import { CLIPBOARD, MOST_COPIED } from './clipboard';

/** All levels, in the table's own order. */
const WHOLE = { down: 99, turned: [] };

/** A tally's tables with its sentence, What counts and warnings, as text and as HTML tables. */
export function* copyTally(held: Held, id: string, full: boolean): Steps<ReplyOf<'copy'>> {
  const { answer } = yield* answered(held, id);
  const rows = answer.tables.reduce((n, table) => n + table.length, 0);
  if (rows > MOST_COPIED)
    throw new EngineError(
      'tooMuch',
      `${showCount(rows)} rows are too many to copy; save them as a file, or ask for fewer places.`,
    );
  const notes = notesOf(held, answer);
  let text = notes.map((note) => textLine(note, CLIPBOARD).text).join('');
  let html = (yield* toHtml(gridOf([answer.words], notes.slice(1).map(noteRow)), '')).text;
  let guarded = 0;
  for (const table of answer.tables) {
    const grid = yield* tableGrid(held, table, full);
    const out = yield* toDelimited(grid, CLIPBOARD);
    guarded += out.guarded;
    text += `\r\n${out.text}`;
    html += (yield* toHtml(grid, table.caption)).text;
  }
  return { text, html, rows, guarded };
}

/** A tally as delimited text: one table plain, several each under their caption, then the notes. */
export function* fileTally(
  held: Held,
  id: string,
  full: boolean,
  dialect: LineDialect,
): Steps<ReplyOf<'file'>> {
  const line = (text: string): string => textLine(text, dialect).text;
  const { answer } = yield* answered(held, id);
  // Texts are added to one another and not joined: joining long ones takes long at one go.
  let text = '';
  let rows = 0;
  let guarded = 0;
  for (const table of answer.tables) {
    const grid = yield* tableGrid(held, table, full);
    const out = yield* toDelimited(grid, dialect);
    const head = answer.tables.length > 1 ? line(table.caption) : '';
    text += `${head}${out.text}\r\n`;
    rows += grid.length;
    guarded += out.guarded;
  }
  return { text: text + notesOf(held, answer).map(line).join(''), rows, guarded };
}

const noteRow = (text: string): Cell[] => [{ text, free: true }];

function* answered(held: Held, id: string): Steps<{ answer: Answer }> {
  const { answer, refused } = yield* held.answer(id);
  if (!answer)
    throw new EngineError('noPlace', refused || 'This tally has no figures to hand over.');
  return { answer };
}

/** The sentence, What counts, and what should be known before a figure is used. */
function notesOf(held: Held, answer: Answer): string[] {
  const names = namesOf(held.table);
  const rungs = held.stand.given.rungs
    .filter((rung) => rung.on)
    .map((rung) => describeCondition(rung.condition, names));
  const aside = count(held.stand.base.narrowed) - held.counted.length;
  const counts = [
    `${showCount(answer.records)} of ${counted(held.table.length, 'record')} of ${held.listName}`,
    ...(rungs.length ? [`narrowed to ${rungs.join('; ')}`] : []),
    ...(aside > 0 ? [`${showCount(aside)} set aside by hand`] : []),
  ];
  return [
    answer.words,
    `What counts: ${counts.join(', ')}.`,
    ...answer.warnings.map((w) => w.words),
  ];
}

function* tableGrid(held: Held, table: AnswerTable, full: boolean): Steps<Grid> {
  const { columns, labels } = table;
  const shown = yield* rowsInView(table, WHOLE);
  return {
    heads: columns.map(({ title, unit }) => headOf(title, unit)),
    length: shown.length,
    row(n) {
      const row = table.row(shown[n]);
      return row.cells.map((cell, c): Cell => {
        const text = full
          ? fullFigure(cell)
          : cell === null && c < labels
            ? ''
            : figureText(columns[c], cell, held.doc.formats);
        const free = columns[c].type === 'text';
        return {
          // The minus of print would make the next program take a number for text.
          text: free ? text : text.replace('−', '-'),
          free,
          right: !free,
          ...(row.kind === 'total' && { strong: true }),
          ...(c === 0 && row.level > 1 && { indent: row.level - 1 }),
        };
      });
    },
  };
}
