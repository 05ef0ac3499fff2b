// The file is read in the browser; there is nothing to show before.
export const ssr = false;
