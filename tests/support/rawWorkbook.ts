import { strToU8, zipSync } from 'fflate';

const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
const MAIN =
  'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

/** Cell formats: plain; bold. */
const STYLES = `${HEAD}<styleSheet ${MAIN}><fonts count="2"><font><sz val="11"/></font><font><b/><sz val="11"/></font></fonts><fills count="1"><fill/></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0" fontId="0"/><xf numFmtId="0" fontId="1"/></cellXfs></styleSheet>`;

/** A cell as its XML without its place: `number(3)`. */
export const text = (value: string, style = 0): string =>
  `<c s="${style}" t="inlineStr"><is><t>${value}</t></is></c>`;
export const number = (value: number | string, style = 0): string =>
  `<c s="${style}"><v>${value}</v></c>`;
export const formula = (of: string, value?: number): string =>
  `<c><f>${of}</f>${value === undefined ? '' : `<v>${value}</v>`}</c>`;
export const fault = (value: string): string => `<c t="e"><v>${value}</v></c>`;
export const isoDay = (value: string): string => `<c t="d"><v>${value}</v></c>`;

/** A workbook of ISO/IEC 29500 as other programs write it, cell by cell. @param sheets names and rows of cells */
export function rawWorkbook(
  sheets: readonly (readonly [string, readonly string[][]])[],
): Uint8Array {
  const cell = (xml: string, row: number, column: number): string =>
    xml.replace(/^<c/, `<c r="${String.fromCharCode(65 + column)}${row + 1}"`);
  const files: Record<string, string> = {
    '[Content_Types].xml': `${HEAD}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>${sheets.map((_, k) => `<Override PartName="/xl/worksheets/sheet${k + 1}.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>`).join('')}<Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>`,
    '_rels/.rels': `${HEAD}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${RELATIONS}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `${HEAD}<workbook ${MAIN}><sheets>${sheets.map(([name], k) => `<sheet name="${name}" sheetId="${k + 1}" r:id="rId${k + 1}"/>`).join('')}</sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `${HEAD}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${sheets.map((_, k) => `<Relationship Id="rId${k + 1}" Type="${RELATIONS}/worksheet" Target="worksheets/sheet${k + 1}.xml"/>`).join('')}<Relationship Id="rId99" Type="${RELATIONS}/styles" Target="styles.xml"/></Relationships>`,
    'xl/styles.xml': STYLES,
  };
  sheets.forEach(([, rows], k) => {
    const lines = rows.map(
      (row, r) => `<row r="${r + 1}">${row.map((xml, c) => cell(xml, r, c)).join('')}</row>`,
    );
    files[`xl/worksheets/sheet${k + 1}.xml`] =
      `${HEAD}<worksheet ${MAIN}><sheetData>${lines.join('')}</sheetData></worksheet>`;
  });
  return zipSync(
    Object.fromEntries(Object.entries(files).map(([name, xml]) => [name, strToU8(xml)])),
  );
}
