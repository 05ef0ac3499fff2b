/** The menus of marked words: fetched when one is first opened, or in a quiet moment before. */
export const slotMenu = () => import('./SlotMenu.svelte');
