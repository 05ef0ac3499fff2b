import { error } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { findList } from '$lib/server/storage/lists';
import { findReading } from '$lib/server/storage/readings';
import type { PageServerLoad } from './$types';

/** A number of an address; null where there is none. */
const numberIn = (text: string | null): number | null =>
  text !== null && /^\d{1,15}$/.test(text) ? Number(text) : null;

export const load: PageServerLoad = async ({ url }) => {
  const { config, databases, db } = application();
  const common = {
    limit: config.uploadBytes,
    ...databases.shown(),
    from: url.searchParams.get('from'),
    bench: numberIn(url.searchParams.get('bench')),
    adds: url.searchParams.has('add'),
  };
  const asked = url.searchParams.get('list');
  if (asked === null) return { ...common, refreshed: null };
  const list = /^\d+$/.test(asked) ? await findList(db, Number(asked)) : undefined;
  if (!list || list.current_reading === null)
    error(404, 'There is no such list. It may have been deleted.');
  const reading = await findReading(db, list.current_reading);
  if (!reading) error(404, 'The list has no reading.');
  const { recipe, records } = reading;
  return {
    ...common,
    refreshed: { id: list.id, name: list.name, reading: reading.id, recipe, records },
  };
};
