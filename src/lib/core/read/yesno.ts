const YES = new Set(['yes', 'true', 'y', '1']);
const NO = new Set(['no', 'false', 'n', '0']);

/** 1, 0, or NaN where the text is neither. */
export function readYesNo(text: string): number {
  const low = text.toLowerCase();
  return YES.has(low) ? 1 : NO.has(low) ? 0 : NaN;
}
