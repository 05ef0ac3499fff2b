import { showCount } from '../../table/format';
import { IntakeError } from '../../errors';

/** What unfolds to more bytes than a list may take. */
export const tooLarge = (limit: number): IntakeError =>
  new IntakeError(
    'tooLarge',
    `Unpacked, the file has more than ${showCount(Math.round(limit / 1024 / 1024))} MB, which one list may take. It was not unpacked any further.`,
  );

/** A package that is not whole. @param why in a few words, without an end */
export const damaged = (why: string): IntakeError =>
  new IntakeError('form', `The file cannot be unpacked: ${why}. Get it anew from where it came.`);
