import { Engine } from './engine';
import { LATER } from './handlers/later';
import { SHOWN } from './handlers/shown';
import type { OpenList } from './session';

/**
 * An engine that answers every request, for whoever has all of its code at hand.
 * @example openEngine({ name: 'Sailings', table, recipe, others: new Map() }).now('resolve', { doc })
 */
export const openEngine = (list: OpenList): Engine => new Engine(list, { ...SHOWN, ...LATER });
