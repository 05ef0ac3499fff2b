/** A file as it is handed over. */
export interface WrittenFile {
  readonly bytes: Uint8Array;
  /** How many texts that would start a formula in the program that opens it were made harmless. */
  readonly guarded: number;
}

/** One in which no text needs it. */
export const written = (bytes: Uint8Array): WrittenFile => ({ bytes, guarded: 0 });

/** One of text in UTF-8. */
export const writtenText = (text: string): WrittenFile => written(new TextEncoder().encode(text));
