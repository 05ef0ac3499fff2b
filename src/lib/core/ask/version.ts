/** The newest version of asks, benches and answers: they are parts of one document and change together. */
export const VERSION = 4;
