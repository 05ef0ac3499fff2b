/*
 * Everything that the core and the engine refuse, in one place. Each class has a code; whoever is on
 * the other side of a border (a worker, a thread, HTTP) tells errors apart by the code, never by the
 * class's name or the message.
 */

export const CODES = [
  'unknownColumn',
  'badBands',
  'badBandList',
  'badCondition',
  'badExpression',
  'badArrow',
  'badFile',
  'writeRefused',
  'circle',
  'notPrepared',
  'badAsk',
  'askRefused',
  'tallyRefused',
  'listRefused',
  'noFigure',
  'stale',
  'noTally',
  'noPlace',
  'tooMuch',
  'superseded',
  'stopped',
  'notOpen',
  'openFailed',
  'workerDied',
  'badReply',
  'threadDied',
  'overLimit',
  'tooLarge',
  'storageFull',
  'storageGone',
  'staleRevision',
  'badInput',
  'badSetting',
  'databaseFault',
  'unexpected',
] as const;
export type Code = (typeof CODES)[number];

/** An error of ours: what was wrong, where, and what to do, with a code for programs. */
export class Trouble extends Error {
  override name = 'Trouble';
  constructor(
    readonly code: Code,
    message: string,
  ) {
    super(message);
  }
}

/** The code of whatever was thrown. */
export const codeOf = (error: unknown): Code =>
  error instanceof Trouble ? error.code : 'unexpected';

/** What is wrong with a part of a document: where, what, and what to do about it. */
interface Wrong {
  readonly path: string;
  readonly message: string;
  readonly remedy: string;
}

/** A column that the list does not have. */
export class UnknownColumn extends Trouble {
  constructor(
    readonly id: string,
    near: string | null = null,
  ) {
    super(
      'unknownColumn',
      `There is no column “${id}” in this list.${near === null ? '' : ` The nearest is “${near}”.`}`,
    );
  }
}

/** A list that cannot be made of another; the message says why. */
export class MadeListRefused extends Trouble {
  constructor(message: string) {
    super('listRefused', message);
  }
}

/** What a format cannot hold; the message says why and which could. */
export class WriteRefused extends Trouble {
  constructor(message: string) {
    super('writeRefused', message);
  }
}

/** Bands that cannot be made; the message says why and what would help. */
export class BadBands extends Trouble {
  constructor(message: string) {
    super('badBands', message);
  }
}

/** A band table that cannot be taken from its list. */
export class BadBandList extends Trouble {
  constructor(message: string) {
    super('badBandList', message);
  }
}

/** A condition whose text cannot be used: an ill-formed regular expression. */
export class BadCondition extends Trouble {
  constructor(message: string) {
    super('badCondition', message);
  }
}

/** A mistake in an expression, at its place (characters start..end-1), with what to do about it. */
export class ExpressionError extends Trouble {
  /**
   * @param fault what is wrong: `Text cannot be added.`
   * @param remedy what to do about it: `Use || to join texts.`
   * @param fix what to write in the place of the span, where that mends it
   */
  constructor(
    readonly fault: string,
    readonly span: { readonly start: number; readonly end: number },
    readonly remedy: string,
    readonly fix: string | null = null,
  ) {
    super('badExpression', `Character ${span.start + 1}: ${fault} ${remedy}`.trim());
  }
}

/** Arrow data that is not a list of ours. */
export class BadArrow extends Trouble {
  constructor(message: string) {
    super('badArrow', message);
  }
}

/** A file that cannot be read at all. The message says what is wrong, where, and what to do. */
export class IntakeError extends Trouble {
  constructor(
    readonly why:
      | 'empty'
      | 'binary'
      | 'tooManyColumns'
      | 'unclosedQuote'
      | 'noRecords'
      | 'noColumns'
      /** Columns that were asked for and are not there. */
      | 'columns'
      | 'tooLarge'
      /** A form of file that is known and cannot be read, or one that is damaged. */
      | 'form'
      /** A sheet, a file of a package or a table that was named and is not there. */
      | 'part',
    message: string,
  ) {
    super('badFile', message);
  }
}

/** Several files whose heads differ, to be put together once it is said what each of these heads is. */
export class HeadsDiffer extends IntakeError {
  constructor(
    message: string,
    readonly heads: readonly {
      readonly head: string;
      readonly lackedBy: readonly string[];
      readonly others: readonly string[];
    }[],
    readonly files: readonly string[],
    /** Whether all of them share half of their heads at least. */
    readonly alike: boolean,
  ) {
    super('columns', message);
  }
}

/** Columns that need one another in a circle, by name: none of them can be first. */
export class Circle extends Trouble {
  constructor(
    readonly path: string,
    readonly names: readonly string[],
  ) {
    super(
      'circle',
      `These columns need one another in a circle: ${names.map((n) => `“${n}”`).join(' → ')}.`,
    );
  }
}

/** A preparation the data do not allow; the message says why and what would help. */
export class PrepareRefused extends Trouble {
  constructor(message: string) {
    super('notPrepared', message);
  }
}

/** An ask with everything that is wrong in it. */
export class BadAsk extends Trouble {
  constructor(readonly faults: readonly Wrong[]) {
    super(
      'badAsk',
      faults.map((f) => `${f.path || 'the ask'}: ${f.message} ${f.remedy}`.trim()).join('\n'),
    );
  }
}

/** A tally whose data do not allow it, with its place in the ask. */
export class AskRefused extends Trouble {
  constructor(
    readonly path: string,
    readonly why: string,
  ) {
    super('askRefused', `${path}: ${why}`);
  }
}

/** The data do not allow what was asked; the message says why and what would. */
export class TallyRefused extends Trouble {
  constructor(message: string) {
    super('tallyRefused', message);
  }
}

/** A place that an answer does not have. */
export class NoSuchFigure extends Trouble {
  constructor(message: string) {
    super('noFigure', message);
  }
}

/** What the engine cannot answer: of a stand that was replaced, of a tally or a place that is gone. */
export class EngineError extends Trouble {
  constructor(code: 'stale' | 'noTally' | 'noPlace' | 'tooMuch', message: string) {
    super(code, message);
  }
}

/** Work that was stopped. */
export class Stopped extends Trouble {
  constructor() {
    super('stopped', 'The calculation was stopped. Nothing was lost.');
  }
}

/** Work that a newer request took the place of. */
export class Superseded extends Trouble {
  constructor() {
    super('superseded', 'A newer request took its place.');
  }
}
