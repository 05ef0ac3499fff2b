/** A list to choose from: fetched when one is first opened, or in a quiet moment before. */
export const choices = () => import('./Choices.svelte');
