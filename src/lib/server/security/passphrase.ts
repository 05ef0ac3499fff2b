import { createHmac, randomBytes, scrypt, scryptSync, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const DAY_MS = 86_400_000;
const LASTS_DAYS = 14;
/** Guesses that wait for their turn; more are refused unheard. */
const MOST_WAITING = 20;

const digestOf = promisify<string, Buffer, number, Buffer>(scrypt);

/** Asks for the passphrase and hands out sessions; forgets them all when the server stops. */
export class PassphraseGate {
  readonly #salt = randomBytes(16);
  readonly #key = randomBytes(32);
  readonly #digest: Buffer;
  /** Wrong guesses in a row: each makes the next wait longer. */
  #wrong = 0;
  /** Guesses waiting, and the last of them: one is looked at after another, however many come at once. */
  #waiting = 0;
  #last: Promise<unknown> = Promise.resolve();

  constructor(
    passphrase: string,
    /** How long the first slow answer waits; each further one twice as long, to 40 times. */
    readonly slowMs = 250,
  ) {
    this.#digest = scryptSync(passphrase, this.#salt, 32);
  }

  /** Whether the passphrase is right; wrong ones are answered ever more slowly. */
  check(given: string): Promise<boolean> {
    if (this.#waiting >= MOST_WAITING) return Promise.resolve(false);
    this.#waiting++;
    const turn = this.#last.then(() => this.#try(given)).finally(() => this.#waiting--);
    this.#last = turn.catch(() => undefined);
    return turn;
  }

  async #try(given: string): Promise<boolean> {
    if (this.#wrong > 2) {
      const wait = this.slowMs * Math.min(40, 2 ** (this.#wrong - 3));
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
    const digest = await digestOf(given.slice(0, 1000), this.#salt, 32);
    const right = timingSafeEqual(digest, this.#digest);
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
