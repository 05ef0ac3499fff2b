import type { Band } from '../arrange/bands';
import type { Bench } from './document';

/** Keeps bands under a name; the same name takes the place of the old. */
export const keepBands = (doc: Bench, name: string, bands: Band[]): Bench => ({
  ...doc,
  bands: [...doc.bands.filter((kept) => kept.name !== name), { name, bands }],
});

export const dropBands = (doc: Bench, name: string): Bench => ({
  ...doc,
  bands: doc.bands.filter((kept) => kept.name !== name),
});
