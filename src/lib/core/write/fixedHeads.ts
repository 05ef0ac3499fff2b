import { strFromU8, strToU8 } from 'fflate';

/** Heads that would take up more of a screen than this scroll with the rest. */
const MOST_FIXED = 12;
/** The view of a sheet stands before its cells. */
const BEFORE_CELLS = 4096;
const PLAIN_VIEW = '<sheetView workbookViewId="0"/>';

/**
 * Has the sheets of a workbook of ISO/IEC 29500 keep their first rows in sight, as part 1, 18.3.1.66 has it;
 * what writes the workbook has no word for it.
 * @param parts the files of its package, changed in place
 * @param fixed rows of each sheet, in their order; 0: none
 */
export function fixHeads(parts: Record<string, Uint8Array>, fixed: readonly number[]): void {
  fixed.forEach((rows, k) => {
    const name = `xl/worksheets/sheet${k + 1}.xml`;
    const sheet = parts[name];
    if (!sheet || rows < 1 || rows > MOST_FIXED) return;
    const head = strFromU8(sheet.subarray(0, BEFORE_CELLS), true);
    const at = head.indexOf(PLAIN_VIEW);
    if (at < 0) return;
    const view = strToU8(
      `<sheetView workbookViewId="0"><pane ySplit="${rows}" topLeftCell="A${rows + 1}" activePane="bottomLeft" state="frozen"/></sheetView>`,
    );
    const out = new Uint8Array(sheet.length - PLAIN_VIEW.length + view.length);
    out.set(sheet.subarray(0, at));
    out.set(view, at);
    out.set(sheet.subarray(at + PLAIN_VIEW.length), at + view.length);
    parts[name] = out;
  });
}
