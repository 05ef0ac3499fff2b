import { AskResult, talliesOf } from '../ask/result';
import { WriteRefused } from '../errors';
import { finish } from '../task/task';
import { tableOf } from '../tally/answer/answer';
import { resultTable } from '../tally/answer/resultTable';
import { encoded, USUAL_DIALECT, type Dialect } from './dialect';
import { FORMS, valuesOf, type OutForm } from './forms';
import { htmlFile } from './htmlFile';
import { markdownFile } from './markdownFile';
import { resultsAsDelimited } from './resultDelimited';
import { sheetsOf } from './sheets';
import { tableFile } from './tableFile';
import { written, writtenText, type WrittenFile } from './written';

/**
 * An answer in an open format: the one writer of page, command line and HTTP. Markdown and web pages
 * have figures as shown, delimited text as is chosen, all others every digit. Arrow and Parquet hold one
 * table: the rows of the answer's only one, totals left out.
 * @param dialect how delimited text is written
 * @throws WriteRefused where the format cannot hold it
 */
export async function resultFile(
  result: AskResult,
  form: OutForm,
  dialect: Dialect = USUAL_DIALECT,
  told: (share: number) => void = () => undefined,
): Promise<WrittenFile> {
  const tallies = talliesOf(result);
  switch (form) {
    case 'csv': {
      const { text, guarded } = resultsAsDelimited(result, valuesOf(form, dialect), dialect);
      return { bytes: encoded(text, dialect.encoding), guarded };
    }
    case 'json':
      // By its schema: the keys stand in one order, whichever way the answer came.
      return writtenText(`${JSON.stringify(AskResult.parse(result), null, 2)}\n`);
    case 'md':
      return writtenText(markdownFile(result));
    case 'html':
      return writtenText(htmlFile(result));
    case 'xlsx':
    case 'ods': {
      const { workbookFile } = await import('./workbookFile');
      return written(workbookFile(sheetsOf(result), form, told));
    }
    case 'arrow':
    case 'parquet': {
      const tables = tallies.flatMap((tally) => tally.tables.filter(({ name }) => name === 'main'));
      const [only] = tables;
      if (!only || tables.length > 1)
        throw new WriteRefused(
          `${FORMS[form].name} holds one table, and ${tables.length} tallies were asked for. Ask for one at a time, or take a workbook.`,
        );
      const { list } = finish(resultTable(tableOf(only)));
      return tableFile({ name: result.list.name, table: list, notes: [] }, form);
    }
  }
}
