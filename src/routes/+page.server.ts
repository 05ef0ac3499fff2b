import { application } from '$lib/server/application';
import { shelf } from '$lib/server/storage/lists';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  lists: await shelf(application().db),
  ...application().databases.shown(),
  now: new Date().toISOString(),
});
