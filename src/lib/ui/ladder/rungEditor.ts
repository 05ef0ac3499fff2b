/** The step being made: fetched when one is begun, or in a quiet moment before. */
export const rungEditor = () => import('./RungEditor.svelte');
