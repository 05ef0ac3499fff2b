import type { Table } from '$lib/core/table/table';
import { Misused } from './exit';
import { BY_ITSELF } from './input';
import { readChecked } from './readChecked';

export interface ListOptions {
  /** Other lists by their names: `Vessels=vessels.csv`. */
  readonly list: readonly string[];
}

/** Other lists that are named with their files. @throws Misused */
export function listsNamed(given: readonly string[]): Map<string, Table> {
  return new Map(
    given.map((text) => {
      const at = text.indexOf('=');
      if (at < 1) throw new Misused(`--list takes NAME=FILE, not “${text}”.`);
      return [text.slice(0, at), readChecked(text.slice(at + 1), BY_ITSELF).table];
    }),
  );
}
