/** What `npm run backup` and `npm run restore` are made of. */
export { readConfig } from '$lib/server/config';
export { backUp, restore } from '$lib/server/storage/backup';
