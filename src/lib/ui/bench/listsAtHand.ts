import type { ListSource } from '../../core/ask/question';
import type { Bench } from '../../core/bench/document';
import { slotsOf } from '../../core/tally/sentence/sentence';
import { sentenceOf } from '../../core/tally/sentence/sentences';
import type { Tally } from '../../core/tally/spec/specs';
import type { Counts } from '../../engine/protocol';
import type { BenchFacts } from './facts';

/** A list that was read anew, and the day of its reading. */
export interface ReadAnew {
  readonly name: string;
  readonly readAt: string;
}

/** Other lists and readings that a bench can name: its own, and those of the shelf. */
export class ListsAtHand {
  /** @param doc the bench as it is now */
  constructor(
    readonly facts: Pick<BenchFacts, 'listId' | 'lists' | 'readings'>,
    readonly doc: () => Bench,
  ) {}

  /** Where a list or reading of that name comes from; null where the shelf has none. */
  sourceOf(name: string): ListSource | null {
    const reading = this.facts.readings.find((r) => r.name === name);
    if (reading) return { list: this.facts.listId, reading: reading.id, table: 'main' };
    const list = this.facts.lists.find((l) => l.name === name);
    return list ? { list: list.id, table: 'main' } : null;
  }

  /** A bench with lists and readings of the shelf among its own, by their names. */
  with(doc: Bench, named: readonly string[]): Bench {
    const missing = named.filter((name) => !(name in doc.lists));
    if (missing.length === 0) return doc;
    const lists = { ...doc.lists };
    for (const name of missing) {
      const source = this.sourceOf(name);
      if (source) lists[name] = source;
    }
    return { ...doc, lists };
  }

  /** A bench with those among its own that a tally names. */
  withThoseOf(doc: Bench, tally: Tally, names: ReadonlyMap<string, string>): Bench {
    const named = slotsOf(sentenceOf(tally, names, '')).flatMap(({ takes }) => {
      if (takes.a === 'list') return [takes.value];
      const bands =
        takes.a === 'bands' ? takes.value : takes.a === 'key' ? takes.value?.bands : null;
      return bands?.by === 'list' ? [bands.list] : [];
    });
    return this.with(doc, named);
  }

  /** The list of the shelf that the bench calls by a name, where what comes from it follows its readings. */
  followed(name: string, doc = this.doc()): BenchFacts['lists'][number] | null {
    const source = doc.lists[name] ?? this.sourceOf(name);
    if (source?.list === undefined || source.reading !== undefined) return null;
    return this.facts.lists.find(({ id }) => id === source.list) ?? null;
  }

  /** Other lists by the names that tallies call them. */
  get names(): readonly string[] {
    const readings = new Set(this.facts.readings.map((r) => r.name));
    return [
      ...new Set([
        ...Object.keys(this.doc().lists),
        ...this.facts.lists.filter((l) => !l.follows).map((l) => l.name),
      ]),
    ].filter((name) => !readings.has(name));
  }

  /** The columns of another list by their names, as it was last read; none where the shelf has no such list. */
  columnsOf(name: string): Counts['columns'] {
    const id = this.doc().lists[name]?.list;
    const list = this.facts.lists.find((l) => (id === undefined ? l.name === name : l.id === id));
    return (list?.columns ?? []).map((column) => ({ ...column, id: column.name }));
  }

  /** Lists and readings that a tally can be set against. */
  get comparable(): readonly string[] {
    return [
      ...new Set([...Object.keys(this.doc().lists), ...this.facts.readings.map((r) => r.name)]),
    ];
  }

  /** Lists that were read anew since the analyst last knew them, by the names of the bench. */
  get readAnew(): readonly ReadAnew[] {
    const doc = this.doc();
    return Object.keys(doc.lists).flatMap((name) => {
      const list = this.followed(name);
      if (!list) return [];
      const seen = doc.seen?.[name];
      // A bench of before says nothing of what was seen: its last save tells.
      const anew = seen === undefined ? list.readSince : seen !== list.reading;
      return anew ? [{ name, readAt: list.readAt }] : [];
    });
  }

  /** The current readings of the lists that a bench follows, by their names. */
  current(doc: Bench): Map<string, number> {
    const lists = Object.keys(doc.lists).map((name) => [name, this.followed(name, doc)] as const);
    return new Map(lists.flatMap(([name, list]) => (list ? [[name, list.reading] as const] : [])));
  }
}
