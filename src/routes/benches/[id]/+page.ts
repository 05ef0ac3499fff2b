// The engine lives in the browser; a page without it would be an empty shell.
export const ssr = false;
