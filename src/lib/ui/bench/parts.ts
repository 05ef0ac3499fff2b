import { bandsFields } from '../sentence/bandsFields';
import { conditionMenu } from '../sentence/conditionMenu';
import { dateMenu } from '../sentence/dateMenu';
import { measureMenu } from '../sentence/measureMenu';
import { slotMenu } from '../sentence/slotMenu';
import { actMenu } from '../components/menuAct';
import { rungEditor } from '../ladder/rungEditor';

/** Fetched once for all who ask, so that they have it in the order they asked; again where it could not be had. */
function once<T>(fetch: () => Promise<T>): () => Promise<T> {
  let had: Promise<T> | null = null;
  return () =>
    (had ??= fetch().catch((error: unknown) => {
      had = null;
      throw error;
    }));
}

/**
 * Parts of the bench that the first look does not need: fetched when they are first looked at, or in
 * a quiet moment before, so that they are there when the server is not.
 */
export const PARTS = {
  tally: once(() => import('../tally/Tally.svelte')),
  chooser: once(() => import('../tray/Chooser.svelte')),
  behind: once(() => import('../behind/Behind.svelte')),
  column: once(() => import('../column/ColumnPanel.svelte')),
  record: once(() => import('./RecordPanel.svelte')),
  leaving: once(() => import('./LeavingDialog.svelte')),
  rung: rungEditor,
  slot: slotMenu,
  menu: actMenu,
  toasts: once(() => import('../components/Toasts.svelte')),
  bands: bandsFields,
  date: dateMenu,
  measure: measureMenu,
  condition: conditionMenu,
  report: once(() => import('../report/ReportPage.svelte')),
  finder: once(() => import('../finder/Finder.svelte')),
  found: once(() => import('../finder/found')),
} as const;

/** How long the first look is left alone. */
const QUIET = 1500;

/** Fetches all parts once the first look is over; those that cannot be had are asked for again when they are needed. */
export async function fetchInQuiet(): Promise<void> {
  await new Promise((done) => setTimeout(done, QUIET));
  await Promise.allSettled(Object.values(PARTS).map((fetch) => fetch()));
}
