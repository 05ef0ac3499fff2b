import type { Migration } from 'kysely';
import * as lists from './0001-lists';
import * as benchStates from './0002-bench-states';
import * as benchVersion2 from './0003-bench-version-2';
import * as acceptedIntakes from './0004-accepted-intakes';
import * as madeLists from './0005-made-lists';
import * as wordsOfDoubts from './0006-words-of-doubts';
import * as partsOfReadings from './0007-parts-of-readings';

/** In the order they run; a name once used is never changed. */
export const migrations: Record<string, Migration> = {
  '0001-lists': lists,
  '0002-bench-states': benchStates,
  '0003-bench-version-2': benchVersion2,
  '0004-accepted-intakes': acceptedIntakes,
  '0005-made-lists': madeLists,
  '0006-words-of-doubts': wordsOfDoubts,
  '0007-parts-of-readings': partsOfReadings,
};
