import type { Generated } from 'kysely';

/** The tables as Kysely sees them. Times are ISO 8601 text in UTC; documents are JSON text. */
export interface Schema {
  lists: ListsTable;
  readings: ReadingsTable;
  chunks: ChunksTable;
  benches: BenchesTable;
  bench_states: BenchStatesTable;
  accepted_intakes: AcceptedIntakesTable;
}

export interface ListsTable {
  id: Generated<number>;
  name: string;
  created_at: string;
  /** The reading that new benches work on. */
  current_reading: number | null;
  /** Lists made of others: where they come from (core/bench/origin.ts), as JSON text. */
  origin: string | null;
  /** What the newest reading of such a list was made of; another text means that it has to be made anew. */
  made_of: string | null;
  /** Why it could not be made anew; null where it could. */
  made_fault: string | null;
}

export interface ReadingsTable {
  id: Generated<number>;
  list_id: number;
  /** 1 for the list's first. */
  number: number;
  file_name: string;
  read_at: string;
  records: number;
  recipe: string;
  doubts: string;
  /** The files that were put together, where there are several: `ReadingPart`s as JSON text. */
  parts: string | null;
  /** Never used twice, not even after a copy of the data folder was put back. */
  stamp: string | null;
}

/** A stretch of a reading's records, all columns, as an Arrow IPC stream. */
export interface ChunksTable {
  reading_id: number;
  n: number;
  data: Uint8Array;
}

export interface BenchesTable {
  id: Generated<number>;
  list_id: number;
  name: string;
  /** Counts the saves; a save must name the one it follows. */
  revision: number;
  doc: string;
  saved_at: string;
}

/** Earlier states of a bench, so that a link opens it as it was. */
export interface BenchStatesTable {
  bench_id: number;
  revision: number;
  doc: string;
  saved_at: string;
  /** 1 where a link was made to it; such a state is never dropped. */
  kept: number;
}

/** What each intake of late came to: JSON text. */
export interface AcceptedIntakesTable {
  id: string;
  accepted_at: string;
  result: string;
}
