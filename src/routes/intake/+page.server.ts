import { error } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { findList } from '$lib/server/storage/lists';
import { findReading } from '$lib/server/storage/readings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
  const { config, databases, db } = application();
  const common = {
    limit: config.uploadBytes,
    ...databases.shown(),
    from: url.searchParams.get('from'),
  };
  const asked = url.searchParams.get('list');
  if (asked === null) return { ...common, refreshed: null };
  const list = /^\d+$/.test(asked) ? await findList(db, Number(asked)) : undefined;
  if (!list || list.current_reading === null)
    error(404, 'There is no such list. It may have been deleted.');
  const reading = await findReading(db, list.current_reading);
  if (!reading) error(404, 'The list has no reading.');
  return { ...common, refreshed: { id: list.id, name: list.name, recipe: reading.recipe } };
};
