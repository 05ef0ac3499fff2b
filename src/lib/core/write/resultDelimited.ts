import { countsInWords } from '../ask/countsInWords';
import { talliesOf, type AskResult } from '../ask/result';
import { finish } from '../task/task';
import { orderRead } from '../table/recordOrder';
import { tableOf } from '../tally/answer/answer';
import { USUAL_DIALECT, type Values } from './dialect';
import { textLine, toDelimited, type LineDialect, type Written } from './grid';
import { rowsShown, tableGrid } from './tableGrid';

/**
 * Results as delimited text (RFC 4180). No text can start a formula in the program that opens it.
 *
 * With full values it is for programs: labels are the values behind them, figures have all their digits,
 * none is empty, and the last three columns say what a row is. One table of one tally is a plain table; of
 * several, each stands under a line with its sentence, with an empty line between them. As shown it is
 * for people: rows in the order of the page, their whole last, and below them what should be known. A report has
 * its title, its words and its notes either way.
 */
export function resultsAsDelimited(
  result: AskResult,
  values: Values = 'full',
  dialect: LineDialect = USUAL_DIALECT,
): Written {
  const full = values === 'full';
  const { formats = {}, report } = result;
  let guarded = 0;
  const line = (text: string): string => {
    const written = textLine(text, dialect);
    guarded += written.guarded;
    return written.text;
  };
  const tallies = talliesOf(result);
  const alone = tallies.length === 1 && tallies[0].tables.length === 1;
  const parts: string[] = [];
  if (report)
    parts.push([report.title, ...report.intro.split('\n').filter(Boolean)].map(line).join(''));
  for (const { title, words, tables, warnings, note, refused } of tallies) {
    for (const table of tables) {
      const answer = tableOf(table);
      const rows = full ? orderRead(answer.length) : finish(rowsShown(answer));
      const grid = tableGrid(answer, { values, formats, kinds: full }, rows);
      const out = finish(toDelimited(grid, dialect));
      guarded += out.guarded;
      parts.push((alone ? '' : line(`${title ?? words} ${table.caption}`)) + out.text);
    }
    const below = [
      ...(refused ? [`${title ?? words} ${refused}`] : []),
      ...(full ? [] : [words, ...warnings.map((warning) => warning.words)]),
      ...(note ? note.split('\n').filter(Boolean) : []),
    ];
    if (below.length) parts.push(below.map(line).join(''));
  }
  if (!full) parts.push(countsInWords(result).map(line).join(''));
  return { text: parts.join('\r\n'), guarded };
}
