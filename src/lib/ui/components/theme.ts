export type Theme = 'auto' | 'light' | 'dark';

const KEY = 'tally-loft-theme';

export const currentTheme = (): Theme => {
  const kept = localStorage.getItem(KEY);
  return kept === 'light' || kept === 'dark' ? kept : 'auto';
};

/** Sets the theme for this and later visits. */
export function setTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset.mode = theme;
}

/** Light and dark in turn, whatever the system says now. */
export function turnTheme(): Theme {
  const dark =
    document.documentElement.dataset.mode === 'dark' ||
    (currentTheme() === 'auto' && matchMedia('(prefers-color-scheme: dark)').matches);
  const next = dark ? 'light' : 'dark';
  setTheme(next);
  return next;
}
