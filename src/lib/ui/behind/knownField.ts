/** Where it is typed what the open figure should be. */
export const KNOWN_FIELD = 'known-total';

/** Goes to that field; false where no figure is open that can have a known total. */
export function toKnownField(): boolean {
  const field = document.getElementById(KNOWN_FIELD);
  field?.focus();
  return field !== null;
}
