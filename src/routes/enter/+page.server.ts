import { fail, redirect } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { formOf } from '$lib/server/http/problem';
import type { Actions } from './$types';

/** Whoever has not given the passphrase yet sends no more than it. */
const FORM_LIMIT = 8192;

export const actions: Actions = {
  default: async ({ request, cookies, url }) => {
    const { gate } = application();
    if (!gate) redirect(303, '/');
    const given = (await formOf(request, FORM_LIMIT)).get('passphrase');
    if (typeof given !== 'string' || !(await gate.check(given))) return fail(403, { wrong: true });
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
