import { fail, redirect } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { formOf } from '$lib/server/http/problem';
import type { Actions } from './$types';

/** Whoever has not given the passphrase yet sends no more than it. */
const FORM_LIMIT = 8192;

export const actions: Actions = {
  default: async ({ request, cookies, url, getClientAddress }) => {
    const { gate } = application();
    if (!gate) redirect(303, '/');
    const given = (await formOf(request, FORM_LIMIT)).get('passphrase');
    const heard = typeof given === 'string' ? await gate.check(given, getClientAddress()) : 'wrong';
    if (heard === 'unheard') return fail(429, { heard });
    if (heard === 'wrong') return fail(403, { heard });
    cookies.set('tally-loft-session', gate.session(), {
      path: '/',
      httpOnly: true,
      sameSite: 'strict',
      secure: url.protocol === 'https:',
      maxAge: 14 * 24 * 3600,
    });
    redirect(303, '/');
  },
};
