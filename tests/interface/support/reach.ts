/**
 * A script for the page: what can be clicked on it and not be reached by the keys. A grid, a list of choices
 * and a menu are reached as one and gone through with arrows; figures of the report are opened in their
 * tally, which its menu opens; what was just done is said, and need not be put away.
 */
export const REACH_FAULTS = `
const ONE = '[role=grid], [role=menu], [role=listbox], [role=radiogroup], [role=tablist]';
const ELSEWHERE = '[data-scope=toast], [data-test=report-table], [inert], [aria-hidden=true]';
const shown = (e) => e.checkVisibility({ visibilityProperty: true }) && e.getClientRects().length > 0;
const called = (e) => e.tagName.toLowerCase() + ' “' + (e.getAttribute('aria-label') || e.innerText || e.className || '').toString().slice(0, 50).trim() + '”';
const faults = [];
for (const e of document.querySelectorAll('button, a[href], input, select, textarea, [role=slider], [role=switch]'))
  if (shown(e) && !e.disabled && e.type !== 'file' && e.tabIndex < 0 && !e.closest(ONE) && !e.closest(ELSEWHERE))
    faults.push('no key reaches ' + called(e));
for (const one of document.querySelectorAll(ONE))
  if (shown(one) && !one.closest(ELSEWHERE) && one.tabIndex < 0 && ![...one.querySelectorAll(one.matches('[role=grid]') ? '[role=gridcell], [role=rowheader], td' : '*')].some((e) => e.tabIndex >= 0) && !one.contains(document.activeElement) && !document.activeElement?.getAttribute('aria-controls'))
    faults.push('no key reaches the ' + one.getAttribute('role') + ' ' + called(one));
// What shows a hand under the pointer does something.
for (const e of document.querySelectorAll('body *'))
  if (getComputedStyle(e).cursor === 'pointer' && shown(e) && !e.closest(ELSEWHERE) && !e.closest(ONE) && !e.closest('button, a[href], input, select, textarea, label, summary, [tabindex], [role=option]'))
    faults.push('a hand over what takes no focus: ' + called(e));
return [...new Set(faults)].slice(0, 20);
`;
