/** Measures in their groups: fetched when they are first asked for, or in a quiet moment before. */
export const measureMenu = () => import('./MeasureMenu.svelte');
