/** A preparation the data do not allow; the message says why and what would help. */
export class PrepareRefused extends Error {
  override name = 'PrepareRefused';
}
