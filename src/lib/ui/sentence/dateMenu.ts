/** A period to be named: fetched when it is first asked for, or in a quiet moment before. */
export const dateMenu = () => import('./DateMenu.svelte');
