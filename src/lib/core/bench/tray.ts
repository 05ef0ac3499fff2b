import type { LedgerSpec } from '../tally/kinds/ledger/spec';
import type { Bench, TrayItem } from './document';

/** A ledger with how it is looked at. */
export type LedgerItem = TrayItem & { readonly tally: LedgerSpec };

export const isLedger = (item: TrayItem): item is LedgerItem => item.tally.kind === 'ledger';

/** The tally that is open; a document always has one. */
export const openItem = (doc: Bench): TrayItem =>
  doc.tray.find((item) => item.id === doc.open) ?? doc.tray[0];

/** The ledger that is open, or the first of the tray; null where there is none. */
export function openLedger(doc: Bench): LedgerItem | null {
  const open = openItem(doc);
  return isLedger(open) ? open : (doc.tray.find(isLedger) ?? null);
}
