import { bandsFields } from '../sentence/bandsFields';
import { conditionMenu } from '../sentence/conditionMenu';
import { dateMenu } from '../sentence/dateMenu';
import { measureMenu } from '../sentence/measureMenu';
import { slotMenu } from '../sentence/slotMenu';
import { actMenu } from '../shell/menuAct';
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
  leaving: () => import('./LeavingDialog.svelte'),
  rung: rungEditor,
  slot: slotMenu,
  menu: actMenu,
  toasts: () => import('../shell/Toasts.svelte'),
  bands: bandsFields,
  date: dateMenu,
  measure: measureMenu,
  condition: conditionMenu,
  report: () => import('../report/ReportPage.svelte'),
  finder: () => import('../finder/Finder.svelte'),
  found: () => import('../finder/found'),
} as const;

/** How long the first look is left alone. */
const QUIET = 1500;

/** Fetches all parts once the first look is over; those that cannot be had are asked for again when they are needed. */
export async function fetchInQuiet(): Promise<void> {
  await new Promise((done) => setTimeout(done, QUIET));
  await Promise.allSettled(Object.values(PARTS).map((fetch) => fetch()));
}
