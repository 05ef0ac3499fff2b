import { Trouble, type Code } from '$lib/core/errors';
import type { Fault } from '$lib/core/tally/spec/fault';

/*
 * What the server refuses besides the core: bodies and addresses that cannot be used, limits, and
 * saves over newer ones. HTTP tells them by their codes (`http/problem.ts`).
 */

/** A body or an address that cannot be used. */
export class BadInput extends Trouble {
  constructor(message: string) {
    super('badInput', message);
  }
}

/** Settings that cannot be used, each named. */
export class BadConfig extends Trouble {
  constructor(message: string) {
    super('badSetting', message);
  }
}

/** Why the server does not start, in a sentence that says what to do. */
export class CannotStart extends Trouble {
  constructor(message: string) {
    super('badSetting', message);
  }
}

/** The database was removed, or another put in its place, while the server runs. */
export class StorageGone extends Trouble {
  constructor() {
    super(
      'storageGone',
      'The database of this server was removed or replaced while it runs. Nothing was saved: put it back, or start the server anew.',
    );
  }
}

/** More was sent than the upload limit allows. */
export class TooLarge extends Trouble {
  constructor(readonly limit: number) {
    super(
      'tooLarge',
      `This is more than the ${Math.round(limit / 1024 / 1024)} MB that one list may take. Bring in a part of it, or raise TALLY_LOFT_UPLOAD_MB.`,
    );
  }
}

/** No room is left on the disk, or within the limit set for the data. */
export class StorageFull extends Trouble {
  constructor() {
    super(
      'storageFull',
      'There is no room left to save in. Nothing was changed. Free some space, or raise TALLY_LOFT_STORAGE_MB, and try again.',
    );
  }
}

/** A save that does not follow the newest revision. */
export class StaleRevision extends Trouble {
  constructor(readonly newest: { readonly revision: number; readonly doc: unknown }) {
    super('staleRevision', `This bench was saved elsewhere since (revision ${newest.revision}).`);
  }
}

/** An answer that took longer, or came out larger, than the server allows. */
export class OverLimit extends Trouble {
  constructor(message: string) {
    super('overLimit', message);
  }
}

/** A task that failed in the thread, with the error's own code and words. */
export class TaskFailed extends Trouble {
  constructor(
    code: Code,
    message: string,
    readonly faults: readonly Fault[] = [],
  ) {
    super(code, message);
  }
}

/** What a database said no to, or that it could not be reached. */
export class DatabaseFault extends Trouble {
  constructor(message: string) {
    super('databaseFault', message);
  }
}

/** A list that takes no file, or lets none out, as it was asked; the message says why. */
export class AddRefused extends Trouble {
  constructor(message: string) {
    super('listRefused', message);
  }
}
