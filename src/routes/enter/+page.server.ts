import { fail, redirect } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import type { Actions } from './$types';

export const actions: Actions = {
  default: async ({ request, cookies, url }) => {
    const { gate } = application();
    if (!gate) redirect(303, '/');
    const given = (await request.formData()).get('passphrase');
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
