import type { ListResult } from '../ask/result';
import { figureText } from '../tally/figureText';
import type { FigureTable } from '../tally/result';
import { headOf } from '../table/format';
import { countsInWords } from './sheets';

/** Marks that Markdown would take for its own. */
const plain = (text: string): string =>
  text.replace(/([\\`*_[\]<>|#])/g, '\\$1').replace(/\r?\n/g, ' ');

/** Results as Markdown: each tally under its sentence, figures as shown, warnings and What counts below. */
export function markdownFile(result: ListResult, tallies: ListResult['tallies']): string {
  const parts = tallies.map((tally) =>
    [
      `## ${plain(tally.title ?? tally.words)}`,
      ...(tally.title ? [plain(tally.words)] : []),
      ...tally.tables.map((table) =>
        [
          ...(tally.tables.length > 1 ? [`**${plain(table.caption)}**\n`] : []),
          tableOf(table),
        ].join('\n'),
      ),
      ...tally.warnings.map(({ words }) => `> ${plain(words)}`),
    ].join('\n\n'),
  );
  return `${[
    ...parts,
    countsInWords(result)
      .map((line) => `- ${plain(line)}`)
      .join('\n'),
  ].join('\n\n')}\n`;
}

function tableOf({ columns, labels, rows }: FigureTable): string {
  const line = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
  return [
    line(columns.map(({ title, unit }) => plain(headOf(title, unit)))),
    line(columns.map((_, c) => (c < labels ? '---' : '---:'))),
    ...rows.map(({ cells, kind }) =>
      line(
        cells.map((cell, c) => {
          const text = plain(c < labels ? String(cell ?? '') : figureText(columns[c], cell));
          return kind === 'total' && text ? `**${text}**` : text;
        }),
      ),
    ),
  ].join('\n');
}
