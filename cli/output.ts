import { writeFileSync } from 'node:fs';
import { counted } from '$lib/core/table/format';
import type { WrittenFile } from '$lib/core/write/written';
import { Failed } from './exit';

/** Writes a result to a file, or to standard output where none is named. @throws Failed */
export function write(text: string | Uint8Array, file: string | undefined): void {
  if (file === undefined || file === '-') {
    writeWhole(text);
    return;
  }
  try {
    writeFileSync(file, text);
  } catch (error) {
    throw new Failed(
      `“${file}” cannot be written: ${error instanceof Error ? error.message : error}`,
    );
  }
}

/** Writes a file in an open format, and says what of it was made harmless. @throws Failed */
export function writeFile({ bytes, guarded }: WrittenFile, file: string | undefined): void {
  write(bytes, file);
  if (guarded)
    note(
      `${counted(guarded, 'text')} that would start a formula in the program that opens the file ${guarded === 1 ? 'has' : 'have'} an apostrophe in front.`,
    );
}

/** Standard output may be a pipe that takes only so much at a time. */
function writeWhole(text: string | Uint8Array): void {
  const bytes = Buffer.from(text);
  for (let at = 0; at < bytes.length;) {
    try {
      writeFileSync(1, bytes.subarray(at, at + (1 << 16)));
      at += 1 << 16;
    } catch (error) {
      if (!(error instanceof Error) || !('code' in error) || error.code !== 'EAGAIN') throw error;
    }
  }
}

/** A note for the person who runs it; results stay alone on standard output. */
export const note = (text: string): void => void process.stderr.write(`${text}\n`);
