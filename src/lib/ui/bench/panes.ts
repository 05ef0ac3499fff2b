/** The parts of the page, in the order in which F6 goes through them. */
const PANES =
  'nav.left, main.centre .sentence, main.centre [role=grid], main.centre .chooser, main.centre [data-test=report], aside';

const CAN_FOCUS =
  '[tabindex="0"], a[href], button:not([disabled], [tabindex="-1"]), input, select, textarea';

/**
 * Goes to the next part of the page, or back to the one before; from the last to the first. Where the focus
 * is in none of them, to the first or the last.
 */
export function toPane(back: boolean): void {
  const panes = [...document.querySelectorAll<HTMLElement>(PANES)].filter(
    (pane) => pane.offsetParent !== null && focusIn(pane) !== null,
  );
  const at = panes.findIndex((pane) => pane.contains(document.activeElement));
  const to = back ? (at < 0 ? panes.length : at) - 1 : at + 1;
  const next = panes.at(to % panes.length);
  if (next) focusIn(next)?.focus();
}

const focusIn = (pane: HTMLElement): HTMLElement | null =>
  pane.matches(CAN_FOCUS) ? pane : pane.querySelector<HTMLElement>(CAN_FOCUS);
