import { xmlText } from './xmlText';
import { unzip } from './zip';

/** What of a sheet its program does not show: rows and columns from 1. */
export interface HiddenParts {
  readonly rows: readonly number[];
  readonly columns: readonly number[];
}

/** More are not looked for: filled sheets end far above them. */
const MOST = 2_000_000;

const TAG = /<table:table(-row|-column)?(?=[\s>/])([^>]*)>/g;
const attribute = (text: string, name: string): string | undefined =>
  new RegExp(`(?:^|\\s)table:${name}="([^"]*)"`).exec(text)?.[1];
/**
 * Rows and columns of an ISO/IEC 26300 workbook that are hidden or filtered away (`table:visibility`,
 * 19.749), by sheet.
 * @throws IntakeError where the package is damaged
 */
export function hiddenInOds(bytes: Uint8Array, limit: number): Map<string, HiddenParts> {
  const [content] = unzip(bytes, limit, (name) => name === 'content.xml');
  const out = new Map<string, { rows: number[]; columns: number[] }>();
  let sheet = { rows: [] as number[], columns: [] as number[] };
  let row = 0;
  let column = 0;
  for (const [, part, about] of new TextDecoder().decode(content.bytes).matchAll(TAG)) {
    if (part === undefined) {
      sheet = { rows: [], columns: [] };
      [row, column] = [0, 0];
      const name = attribute(about, 'name') ?? '';
      out.set(xmlText(name), sheet);
      continue;
    }
    const repeated = attribute(about, `number-${part.slice(1)}s-repeated`);
    const times = Math.min(MOST, Math.max(1, Number(repeated ?? 1) || 1));
    const hidden = /^(collapse|filter)$/.test(attribute(about, 'visibility') ?? 'visible');
    const from = part === '-row' ? (row += times) - times : (column += times) - times;
    // What is repeated to the end of a sheet holds nothing.
    if (!hidden || times > 100_000) continue;
    const list = part === '-row' ? sheet.rows : sheet.columns;
    for (let n = 1; n <= times; n++) list.push(from + n);
  }
  return out;
}
