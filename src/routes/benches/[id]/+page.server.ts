import { error } from '@sveltejs/kit';
import { showDay } from '$lib/core/table/format';
import { application } from '$lib/server/application';
import { freshBench } from '$lib/server/derived/freshen';
import { followersOf, originOf } from '$lib/server/storage/madeLists';
import { findState } from '$lib/server/storage/benches';
import { bandsElsewhere } from '$lib/server/storage/keptBands';
import { findList, listNames } from '$lib/server/storage/lists';
import { findReading, readingsOf } from '$lib/server/storage/readings';
import { showMoment } from '$lib/core/table/format';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const { db } = application();
  const bench = /^\d+$/.test(params.id)
    ? await freshBench(application(), Number(params.id))
    : undefined;
  if (!bench) error(404, 'There is no such bench. It may have been deleted.');
  const state = url.searchParams.get('state');
  const kept =
    state && /^\d+$/.test(state) ? await findState(db, bench.id, Number(state)) : undefined;
  if (state && !kept) error(404, 'This link names a state of the bench that is no longer kept.');
  const doc = kept?.doc ?? bench.doc;
  const [list, reading, readings, lists, followers, bands] = await Promise.all([
    findList(db, bench.listId),
    findReading(db, doc.reading),
    readingsOf(db, bench.listId),
    listNames(db),
    followersOf(db, bench.id),
    bandsElsewhere(db, bench.id),
  ]);
  return {
    facts: {
      id: bench.id,
      name: bench.name,
      listId: bench.listId,
      listName: list?.name ?? '',
      readAt: reading ? showDay(reading.readAt) : '',
      readings: readings
        .filter(({ id }) => id !== doc.reading)
        .map(({ id, number, read_at: at }) => ({
          id,
          name: `the reading of ${showDay(at)} (no. ${number})`,
        })),
      lists: lists
        .filter(({ id }) => id !== bench.listId)
        .map(({ readAt, ...other }) => ({
          ...other,
          follows: followers.has(other.id),
          readAt: showDay(readAt),
          readSince: readAt > bench.savedAt,
        })),
      currentReading: list?.current_reading ?? doc.reading,
      bands,
      origin: await originOf(db, bench.listId),
      revision: bench.revision,
      doc,
      earlier:
        kept && kept.revision !== bench.revision
          ? { revision: kept.revision, savedAt: showMoment(kept.savedAt), newest: bench.doc }
          : null,
    },
  };
};
