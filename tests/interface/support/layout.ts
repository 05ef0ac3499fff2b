/**
 * A script that looks for what a window does to a page: wider than the window, words cut without a
 * sign, buttons and fields that lie under something. Gives each in words.
 */
export const LAYOUT_FAULTS = `
  const out = [];
  const root = document.documentElement;
  if (root.scrollWidth > innerWidth + 1)
    out.push('the page is ' + (root.scrollWidth - innerWidth) + ' px wider than the window');

  const nameOf = (e) =>
    '<' + e.tagName.toLowerCase() + (typeof e.className === 'string' && e.className ? ' ' + e.className.split(' ')[0] : '') + '> “' +
    (e.getAttribute('aria-label') || e.innerText || e.value || e.title || '').trim().slice(0, 40) + '”';
  const hidden = (e) => e.closest('.visually-hidden, [aria-hidden=true], [hidden], .sheets') !== null;
  const seen = (e) => {
    const box = e.getBoundingClientRect();
    const style = getComputedStyle(e);
    return box.width > 1 && box.height > 1 && style.visibility !== 'hidden' && style.opacity !== '0';
  };

  // Words that do not fit and do not end in dots.
  for (const e of document.querySelectorAll('button, a, h1, h2, h3, th, td, label, p, li, span, strong, b, small, summary')) {
    if (e.clientWidth === 0 || hidden(e) || !seen(e)) continue;
    const style = getComputedStyle(e);
    if (!['hidden', 'clip'].includes(style.overflowX)) continue;
    if (e.scrollWidth > e.clientWidth + 1 && style.textOverflow !== 'ellipsis') out.push('cut: ' + nameOf(e));
  }

  // What lies within the part of the page that is shown, and of every part that scrolls.
  const shownAt = (e, x, y) => {
    if (x < 0 || y < 0 || x >= innerWidth || y >= innerHeight) return false;
    for (let p = e.parentElement; p; p = p.parentElement) {
      const style = getComputedStyle(p);
      if (style.overflowX === 'visible' && style.overflowY === 'visible') continue;
      const box = p.getBoundingClientRect();
      if (x < box.left || x >= box.right || y < box.top || y >= box.bottom) return false;
    }
    return true;
  };
  for (const e of document.querySelectorAll('button, a[href], input:not([type=file]), select, textarea')) {
    if (hidden(e) || !seen(e)) continue;
    const box = e.getClientRects()[0];
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    if (!shownAt(e, x, y)) continue;
    const top = document.elementFromPoint(x, y);
    // What stays in sight while the rest scrolls under it covers nothing for good.
    let stays = top;
    while (stays && getComputedStyle(stays).position !== 'sticky') stays = stays.parentElement;
    if (stays && !stays.contains(e)) continue;
    if (top && top !== e && !e.contains(top) && !top.contains(e) && !(top.closest('label') && top.closest('label').contains(e)))
      out.push('covered: ' + nameOf(e) + ' by ' + nameOf(top));
  }
  return out.slice(0, 12);`;
