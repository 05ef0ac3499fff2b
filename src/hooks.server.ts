import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';
import { application, start, stop } from '$lib/server/application';
import { log } from '$lib/server/log';
import { problem } from '$lib/server/http/problem';
import { isCrossSiteWrite, isForeignHost } from '$lib/server/security/crossSite';

export const init: ServerInit = async () => {
  await start(process.env);
  process.once('sveltekit:shutdown', () => void stop());
};

const SESSION = 'tally-loft-session';

/** What every answer says of itself, a refusal too; static files say it in `scripts/serve.mjs`. */
function guarded(response: Response, kept: boolean): Response {
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  // Behind a passphrase nothing is left in a cache for whoever comes next.
  if (!kept) response.headers.set('cache-control', 'no-store');
  return response;
}

export const handle: Handle = async ({ event, resolve }) => {
  const { gate } = application();
  return guarded(refusal(event) ?? (await resolve(event)), gate === null);
};

/** Why a request is not answered; null where it is. */
function refusal({ request, url, cookies }: RequestEvent): Response | null {
  const { config, gate } = application();
  const host = request.headers.get('host');
  if (config.loopback && isForeignHost(host))
    return problem(421, 'Wrong address', 'This server answers on its loopback address only.');
  if (isCrossSiteWrite(request.method, request.headers, host ?? ''))
    return problem(
      403,
      'From another site',
      'Writes are taken from this application’s own pages only.',
    );
  const open = url.pathname === '/enter' || url.pathname.startsWith('/_app/');
  if (!gate || open || gate.admits(cookies.get(SESSION))) return null;
  if (url.pathname.startsWith('/api/'))
    return problem(401, 'Passphrase needed', 'Open the application and give the passphrase first.');
  return new Response(null, { status: 303, headers: { location: '/enter' } });
}

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status >= 500) log().error(error, 'a page failed');
  return { message: status === 404 ? 'There is no such page.' : message };
};
