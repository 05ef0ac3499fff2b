import type { Component } from 'svelte';
import { render } from 'svelte/server';
import type { ReportSettings } from '../../core/bench/document';
import type { Report } from '../../engine/report';
import tokens from '../../../tokens.css?raw';
import type { ViewProps } from '../tally/view';
import { VIEWS } from '../tally/views';
import { MARGIN, sheetOf, textRoom } from './layout';
import ReportDocument from './ReportDocument.svelte';

/**
 * A report as one web page without outside parts, to be read without script: drawn by the same
 * components as the page of the bench. For the server and the command line.
 */
export async function reportDocument(report: Report, settings: ReportSettings): Promise<string> {
  const sheet = sheetOf(settings.paper, settings.lying);
  const { width } = textRoom(sheet);
  const views = new Map<string, Component<ViewProps>>();
  for (const { item } of report.sections) {
    const { kind } = item.tally;
    if (!views.has(kind)) views.set(kind, (await VIEWS[kind].load()).default);
  }
  const { head, body } = render(ReportDocument, { props: { report, width, views } });
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(report.title)}</title>
<style>
${tokens}
:root { color-scheme: light; }
body { margin: 0; background: #fff; color: var(--ink); font-family: var(--font-sans); font-feature-settings: 'tnum' 1, 'lnum' 1; }
.visually-hidden { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
@page {
  size: ${sheet.width}mm ${sheet.height}mm;
  margin: ${MARGIN.top}mm ${MARGIN.side}mm ${MARGIN.foot}mm;
  @bottom-left { content: "${cssText(`${report.list}, read ${report.read}`)}"; font: 9px sans-serif; color: #595e6b; }
  @bottom-right { content: counter(page); font: 9px sans-serif; color: #595e6b; }
}
</style>
${head}
</head>
<body>
${body}
</body>
</html>
`;
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

/** Text within a string of a style sheet, which stands in a page: no mark of it can end either. */
const cssText = (text: string): string =>
  text.replace(/["\\<>&\n\r\f]/g, (mark) => `\\${mark.charCodeAt(0).toString(16)} `);
