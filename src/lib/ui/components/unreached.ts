/** What is fetched when it is first needed may be out of reach then. */
export const UNREACHED =
  'This could not be fetched: the server does not answer. Try again when it is back.';
