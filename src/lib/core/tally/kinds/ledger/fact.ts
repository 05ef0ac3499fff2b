/** Whether a ledger foots is said in the tray; of itself it says nothing more. */
export const ledgerFact = (): string => '';
