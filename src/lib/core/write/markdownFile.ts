import { countsInWords } from '../ask/countsInWords';
import { talliesOf, type AskResult } from '../ask/result';
import { finish } from '../task/task';
import { tableOf } from '../tally/answer/answer';
import type { FigureTable } from '../tally/answer/result';
import type { Formats } from '../tally/spec/formats';
import { rowsShown, tableGrid } from './tableGrid';

/** Marks that Markdown would take for its own. */
const plain = (text: string): string =>
  text.replace(/([\\`*_[\]<>|#])/g, '\\$1').replace(/\r?\n/g, ' ');

/** Words of the analyst's own: their lines stay lines. */
const paragraphs = (text: string): string[] => text.split(/\r?\n/).filter(Boolean).map(plain);

/** Results as Markdown: each tally under its sentence, figures as shown, warnings and What counts below. */
export function markdownFile(result: AskResult): string {
  const { formats = {}, report } = result;
  const parts = talliesOf(result).map((tally) =>
    [
      `## ${plain(tally.title ?? tally.words)}`,
      ...(tally.title ? [plain(tally.words)] : []),
      ...(tally.refused ? [`> ${plain(tally.refused)}`] : []),
      ...tally.tables.map((table) =>
        [
          ...(tally.tables.length > 1 ? [`**${plain(table.caption)}**\n`] : []),
          markdownTable(table, formats),
        ].join('\n'),
      ),
      ...tally.warnings.map(({ words }) => `> ${plain(words)}`),
      ...paragraphs(tally.note ?? ''),
    ].join('\n\n'),
  );
  return `${[
    ...(report ? [`# ${plain(report.title)}`, ...paragraphs(report.intro)] : []),
    ...parts,
    countsInWords(result)
      .map((line) => `- ${plain(line)}`)
      .join('\n'),
  ].join('\n\n')}\n`;
}

function markdownTable(table: FigureTable, formats: Formats): string {
  const line = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
  const answer = tableOf(table);
  const grid = tableGrid(answer, { values: 'shown', formats }, finish(rowsShown(answer)));
  return [
    line(grid.heads.map(plain)),
    line(grid.heads.map((_, c) => (c < table.labels ? '---' : '---:'))),
    ...Array.from({ length: grid.length }, (_, n) =>
      line(
        grid.row(n).map(({ text, strong }) => {
          const cell = plain(text);
          return strong && cell ? `**${cell}**` : cell;
        }),
      ),
    ),
  ].join('\n');
}
