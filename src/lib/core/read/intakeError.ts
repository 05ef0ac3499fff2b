/** A file that cannot be read at all. The message says what is wrong, where, and what to do. */
export class IntakeError extends Error {
  override name = 'IntakeError';
  constructor(
    readonly code:
      | 'empty'
      | 'binary'
      | 'tooManyColumns'
      | 'unclosedQuote'
      | 'noRecords'
      | 'noColumns'
      | 'tooLarge',
    message: string,
  ) {
    super(message);
  }
}
