import { countsInWords } from '../../core/ask/countsInWords';
import { resultOf } from '../../core/ask/answerAsk';
import { isLedger } from '../../core/bench/tray';
import { EngineError } from '../../core/errors';
import type { Task } from '../../core/task/task';
import { showCount } from '../../core/table/format';
import { namesOf } from '../../core/table/table';
import type { AnswerTable } from '../../core/tally/answer/answer';
import { ledgerSentence } from '../../core/tally/kinds/ledger/sentence';
import { handedOver } from '../../core/tally/kinds/ledger/linesTable';
import { plainSentence } from '../../core/tally/sentence/sentence';
import { gridOf, textLine, toDelimited, toHtml, type LineDialect } from '../../core/write/grid';
import { rowsShown, tableGrid } from '../../core/write/tableGrid';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';

/** How tables of texts are copied. */
const CLIPBOARD: LineDialect = { delimiter: 'tab', decimal: 'point' };

/** Lines a clipboard can take; more go into a file. */
const MOST_COPIED = 200_000;

/** A table with the rows that are copied. */
interface Copied {
  readonly table: AnswerTable;
  readonly rows: ArrayLike<number>;
}

/** What is shown of a tally, as text and as HTML tables: of a ledger its lines alone, of others with their notes. */
export function* answerCopy(
  session: Session,
  { tally, values }: ArgsOf<'copy'>,
): Task<ReplyOf<'copy'>> {
  const { tables, caption, notes } = yield* copiedOf(session, tally);
  const rows = tables.reduce((n, { rows }) => n + rows.length, 0);
  if (rows > MOST_COPIED)
    throw new EngineError(
      'tooMuch',
      `${showCount(rows)} rows are too many to copy; save them as a file, fold some groups, or ask for fewer.`,
    );
  let text = notes.map((note) => textLine(note, CLIPBOARD).text).join('');
  let html = '';
  if (notes.length) {
    const [first, ...rest] = notes;
    const lines = rest.map((note) => [{ text: note, free: true }]);
    html = (yield* toHtml(gridOf([first], lines), '')).text;
  }
  let guarded = 0;
  for (const { table, rows: places } of tables) {
    const grid = tableGrid(table, { values, formats: session.doc.formats }, places);
    const out = yield* toDelimited(grid, CLIPBOARD);
    guarded += out.guarded;
    text += notes.length ? `\r\n${out.text}` : out.text;
    html += (yield* toHtml(grid, caption ?? table.caption)).text;
  }
  return { text, html, rows, guarded };
}

function* copiedOf(
  session: Session,
  id: string,
): Task<{ tables: Copied[]; caption: string | null; notes: string[] }> {
  const item = session.item(id);
  if (isLedger(item)) {
    const { table, view, spec } = yield* session.ledger(id);
    const sentence = ledgerSentence(spec, namesOf(session.table), session.listName);
    const rows = yield* handedOver(view);
    return { tables: [{ table, rows }], caption: plainSentence(sentence), notes: [] };
  }
  const { answer, refused } = yield* session.answer(id);
  if (!answer)
    throw new EngineError('noPlace', refused || 'This tally has no figures to hand over.');
  const tables: Copied[] = [];
  for (const table of answer.tables) tables.push({ table, rows: yield* rowsShown(table) });
  const counts = countsInWords(resultOf(session.list, session.resolved, [], {}));
  const notes = [answer.words, ...counts, ...answer.warnings.map(({ words }) => words)];
  return { tables, caption: null, notes };
}
