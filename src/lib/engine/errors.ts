/** Errors of the engine; pages and servers tell them apart by their codes. */
export class EngineError extends Error {
  constructor(
    readonly code: 'stale' | 'noTally' | 'noPlace' | 'tooMuch',
    message: string,
  ) {
    super(message);
    this.name = `Engine:${code}`;
  }
}
