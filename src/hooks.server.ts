import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { application, start, stop } from '$lib/server/application';
import { log } from '$lib/server/log';
import { problem } from '$lib/server/http/problem';
import { isCrossSiteWrite, isForeignHost } from '$lib/server/security/crossSite';

export const init: ServerInit = async () => {
  await start(process.env);
  process.once('sveltekit:shutdown', () => void stop());
};

const SESSION = 'tally-loft-session';

export const handle: Handle = async ({ event, resolve }) => {
  const { config, gate } = application();
  const host = event.request.headers.get('host');
  if (config.loopback && isForeignHost(host))
    return problem(421, 'Wrong address', 'This server answers on its loopback address only.');
  if (isCrossSiteWrite(event.request.method, event.request.headers, host ?? ''))
    return problem(
      403,
      'From another site',
      'Writes are taken from this application’s own pages only.',
    );
  const open = event.url.pathname === '/enter' || event.url.pathname.startsWith('/_app/');
  if (gate && !open && !gate.admits(event.cookies.get(SESSION))) {
    if (event.url.pathname.startsWith('/api/'))
      return problem(
        401,
        'Passphrase needed',
        'Open the application and give the passphrase first.',
      );
    return new Response(null, { status: 303, headers: { location: '/enter' } });
  }
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status >= 500) log().error(error, 'a page failed');
  return { message: status === 404 ? 'There is no such page.' : message };
};
