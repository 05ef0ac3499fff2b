import { countsInWords } from '../ask/countsInWords';
import { talliesOf, type AskResult } from '../ask/result';
import { finish } from '../task/task';
import { tableOf } from '../tally/answer/answer';
import type { Formats } from '../tally/spec/formats';
import type { FigureTable } from '../tally/answer/result';
import { escapeMarkup, toHtml } from './grid';
import { rowsShown, tableGrid } from './tableGrid';

const STYLE =
  'body{font:15px/1.45 sans-serif;margin:2em auto;max-width:60em;padding:0 1em}table{border-collapse:collapse;margin:1em 0}th,td{padding:.2em .7em;border-bottom:1px solid #bbb;text-align:right;font-variant-numeric:tabular-nums}th[scope=row],thead th:first-child{text-align:left}caption{text-align:left}';

/** Results as one web page without script or outside parts: figures as shown, under their sentences. */
export function htmlFile(result: AskResult): string {
  const { formats = {}, report } = result;
  const paragraph = (text: string): string => `<p>${escapeMarkup(text)}</p>`;
  const parts = talliesOf(result).map(
    (tally) =>
      `<section><h2>${escapeMarkup(tally.title ?? tally.words)}</h2>` +
      (tally.title ? paragraph(tally.words) : '') +
      (tally.refused ? paragraph(tally.refused) : '') +
      tally.tables.map((table) => htmlTable(table, formats)).join('') +
      tally.warnings.map(({ words }) => paragraph(words)).join('') +
      (tally.note ? paragraph(tally.note) : '') +
      '</section>',
  );
  const title = escapeMarkup(report?.title ?? result.list.name);
  const counts = countsInWords(result).map((line) => `<li>${escapeMarkup(line)}</li>`);
  return (
    `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title><style>${STYLE}</style></head>` +
    `<body><h1>${title}</h1>${report?.intro ? paragraph(report.intro) : ''}${parts.join('')}<h2>What counts</h2><ul>${counts.join('')}</ul></body></html>\n`
  );
}

function htmlTable(table: FigureTable, formats: Formats): string {
  const answer = tableOf(table);
  const grid = tableGrid(answer, { values: 'shown', formats }, finish(rowsShown(answer)));
  return finish(toHtml(grid, table.caption, false)).text;
}
