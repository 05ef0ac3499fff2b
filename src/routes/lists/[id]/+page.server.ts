import { error } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { freshen } from '$lib/server/derived/freshen';
import { originOf } from '$lib/server/storage/madeLists';
import { benchesOf } from '$lib/server/storage/benches';
import { findList } from '$lib/server/storage/lists';
import { findReading, readingsOf } from '$lib/server/storage/readings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const { db } = application();
  if (/^\d+$/.test(params.id)) await freshen(application(), Number(params.id));
  const list = /^\d+$/.test(params.id) ? await findList(db, Number(params.id)) : undefined;
  if (!list) error(404, 'There is no such list. It may have been deleted.');
  const [readings, benches] = await Promise.all([readingsOf(db, list.id), benchesOf(db, list.id)]);
  const current =
    list.current_reading === null ? undefined : await findReading(db, list.current_reading);
  return {
    list: { id: list.id, name: list.name, current: list.current_reading },
    origin: await originOf(db, list.id),
    readings: readings.map((r) => ({
      id: r.id,
      number: r.number,
      fileName: r.file_name,
      readAt: r.read_at,
      records: r.records,
      parts: r.parts,
    })),
    benches: benches.map(({ id, name, savedAt, revision, doc }) => ({
      id,
      name,
      savedAt,
      revision,
      doc,
    })),
    doubts: current?.doubts ?? [],
    columns:
      current?.recipe.columns.map((c) => ({
        id: c.id,
        name: c.name,
        type: c.type,
        unit: c.unit,
        unitInCells: c.unitInCells,
      })) ?? [],
    refreshed: url.searchParams.has('refreshed'),
  };
};
