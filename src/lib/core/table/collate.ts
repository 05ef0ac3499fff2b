/** Language rules with numbers inside text in number order: "Pier 9" before "Pier 10". */
export const collator = new Intl.Collator('en', { numeric: true });

export const compareText = (a: string, b: string): number =>
  collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
