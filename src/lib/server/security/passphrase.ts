import { createHmac, randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';

const DAY_MS = 86_400_000;
const LASTS_DAYS = 14;

/** Asks for the passphrase and hands out sessions; forgets them all when the server stops. */
export class PassphraseGate {
  readonly #salt = randomBytes(16);
  readonly #key = randomBytes(32);
  readonly #digest: Buffer;
  /** When the next try is answered: each wrong one makes the next wait longer. */
  #wrong = 0;

  constructor(passphrase: string) {
    this.#digest = scryptSync(passphrase, this.#salt, 32);
  }

  /** Whether the passphrase is right; wrong ones are answered ever more slowly. */
  async check(given: string): Promise<boolean> {
    if (this.#wrong > 2)
      await new Promise((resolve) =>
        setTimeout(resolve, Math.min(10_000, 250 * 2 ** (this.#wrong - 3))),
      );
    const right = timingSafeEqual(scryptSync(given.slice(0, 1000), this.#salt, 32), this.#digest);
    this.#wrong = right ? 0 : this.#wrong + 1;
    return right;
  }

  /** A signed token that says until when it holds. */
  session(now = Date.now()): string {
    const until = String(now + LASTS_DAYS * DAY_MS);
    return `${until}.${this.#sign(until)}`;
  }

  admits(token: string | undefined, now = Date.now()): boolean {
    const [until, signature] = (token ?? '').split('.');
    if (!until || !signature || !(Number(until) > now)) return false;
    const right = Buffer.from(this.#sign(until));
    const given = Buffer.from(signature);
    return right.length === given.length && timingSafeEqual(right, given);
  }

  #sign(text: string): string {
    return createHmac('sha256', this.#key).update(text).digest('base64url');
  }
}
