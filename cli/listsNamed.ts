import type { Table } from '$lib/core/table/table';
import { Misused } from './exit';
import { BY_ITSELF } from './input';
import { readChecked } from './readChecked';

export interface ListOptions {
  /** Other lists by their names: `Vessels=vessels.csv`. */
  readonly list: readonly string[];
}

/** Other lists that are named with their files. @throws Misused */
export async function listsNamed(given: readonly string[]): Promise<Map<string, Table>> {
  const out = new Map<string, Table>();
  for (const text of given) {
    const at = text.indexOf('=');
    if (at < 1) throw new Misused(`--list takes NAME=FILE, not “${text}”.`);
    out.set(text.slice(0, at), (await readChecked(text.slice(at + 1), BY_ITSELF)).table);
  }
  return out;
}
