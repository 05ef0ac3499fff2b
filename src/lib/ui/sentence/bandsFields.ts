/** How numbers are cut: fetched when it is first asked for, or in a quiet moment before. */
export const bandsFields = () => import('./BandsFields.svelte');
