/** One act of a menu. */
export interface MenuAct {
  readonly label: string;
  readonly run: () => void;
  /** Whether it holds now, of an act that is turned on and off. */
  readonly on?: boolean;
  readonly disabled?: boolean;
}

/** The menu itself: fetched when one is first opened, or in a quiet moment before. */
export const actMenu = () => import('./ActMenu.svelte');
