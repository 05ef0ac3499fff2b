import { talliesOf, type AskResult } from '../ask/result';
import { WriteRefused } from '../errors';
import { finish } from '../steps/steps';
import { tableOf } from '../tally/answer';
import { resultTable } from '../tally/resultTable';
import { encoded, USUAL_DIALECT, type Dialect } from './dialect';
import { FORMS, type OutForm } from './forms';
import { htmlFile } from './htmlFile';
import { markdownFile } from './markdownFile';
import { resultsAsDelimited } from './resultDelimited';
import { sheetsOf } from './sheets';
import { tableFile } from './tableFile';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/**
 * The answer to an ask in an open format, every figure in full where the format can hold it. Arrow and
 * Parquet hold one table: the rows of the answer's only one, totals left out.
 * @param dialect how delimited text is written
 * @throws WriteRefused where the format cannot hold it
 */
export async function resultFile(
  result: AskResult,
  form: OutForm,
  dialect: Dialect = USUAL_DIALECT,
  told: (share: number) => void = () => undefined,
): Promise<Uint8Array> {
  const tallies = talliesOf(result);
  switch (form) {
    case 'csv':
      return encoded(resultsAsDelimited(tallies, dialect).text, dialect.encoding);
    case 'json':
      return bytes(`${JSON.stringify(result, null, 2)}\n`);
    case 'md':
      return bytes(markdownFile(result, tallies));
    case 'html':
      return bytes(htmlFile(result, tallies));
    case 'xlsx':
    case 'ods': {
      const { workbookFile } = await import('./workbookFile');
      return workbookFile(sheetsOf(result, tallies), form, told);
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
