/** A condition to be made: fetched when it is first asked for, or in a quiet moment before. */
export const conditionMenu = () => import('./ConditionMenu.svelte');
