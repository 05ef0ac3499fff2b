import type { ListResult } from '../ask/result';
import { figureText } from '../tally/figureText';
import type { FigureTable } from '../tally/result';
import { headOf } from '../table/format';
import { finish } from '../steps/steps';
import { escapeMarkup, gridOf, toHtml, type Cell } from './grid';
import { countsInWords } from './sheets';

const STYLE =
  'body{font:15px/1.45 sans-serif;margin:2em auto;max-width:60em;padding:0 1em}table{border-collapse:collapse;margin:1em 0}th,td{padding:.2em .7em;border-bottom:1px solid #bbb;text-align:right;font-variant-numeric:tabular-nums}th[scope=row],thead th:first-child{text-align:left}caption{text-align:left}';

/** Results as one web page without script or outside parts: figures as shown, under their sentences. */
export function htmlFile(result: ListResult, tallies: ListResult['tallies']): string {
  const parts = tallies.map(
    (tally) =>
      `<section><h2>${escapeMarkup(tally.title ?? tally.words)}</h2>` +
      (tally.title ? `<p>${escapeMarkup(tally.words)}</p>` : '') +
      tally.tables.map(tableOf).join('') +
      tally.warnings.map(({ words }) => `<p>${escapeMarkup(words)}</p>`).join('') +
      '</section>',
  );
  const counts = countsInWords(result).map((line) => `<li>${escapeMarkup(line)}</li>`);
  return (
    `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escapeMarkup(result.list.name)}</title><style>${STYLE}</style></head>` +
    `<body><h1>${escapeMarkup(result.list.name)}</h1>${parts.join('')}<h2>What counts</h2><ul>${counts.join('')}</ul></body></html>\n`
  );
}

const tableOf = ({ caption, columns, labels, rows }: FigureTable): string =>
  finish(
    toHtml(
      gridOf(
        columns.map(({ title, unit }) => headOf(title, unit)),
        rows.map(({ cells, kind, level }) =>
          cells.map((cell, c): Cell => {
            const head = c < labels;
            return {
              text: head ? String(cell ?? '') : figureText(columns[c], cell),
              free: head,
              strong: kind === 'total',
              head,
              ...(head && level > 0 && { indent: level }),
            };
          }),
        ),
      ),
      caption,
    ),
  ).text;
