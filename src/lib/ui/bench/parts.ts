import { bandsFields } from '../sentence/bandsFields';
import { dateMenu } from '../sentence/dateMenu';
import { rungEditor } from '../ladder/rungEditor';

/**
 * Parts of the bench that the first look does not need: fetched when they are first looked at, or in
 * a quiet moment before, so that they are there when the server is not.
 */
export const PARTS = {
  tally: () => import('../tally/Tally.svelte'),
  chooser: () => import('../tray/Chooser.svelte'),
  behind: () => import('../behind/Behind.svelte'),
  column: () => import('../column/ColumnPanel.svelte'),
  record: () => import('./RecordPanel.svelte'),
  rung: rungEditor,
  bands: bandsFields,
  date: dateMenu,
} as const;

/** How long the first look is left alone. */
const QUIET = 1500;

/** Fetches all parts once nothing else is to be done. */
export function fetchInQuiet(): void {
  setTimeout(() => {
    for (const fetch of Object.values(PARTS)) fetch().catch(() => undefined);
  }, QUIET);
}
