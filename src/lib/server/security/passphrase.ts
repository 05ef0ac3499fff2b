import { createHmac, randomBytes, scrypt, scryptSync, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const DAY_MS = 86_400_000;
const LASTS_DAYS = 14;
/** Guesses of one address that wait for their turn; more are not heard, and told so. */
const MOST_WAITING = 20;
/** Addresses whose wrong guesses are remembered; of more, the one that was heard of longest ago is forgotten. */
const MOST_ADDRESSES = 10_000;

/** What came of a guess; one that was not heard may have been right. */
export type Heard = 'right' | 'wrong' | 'unheard';

/** The guesses of one address: one is looked at after another, however many come at once; so many wait for answers. */
interface Guesses {
  /** Wrong ones in a row: each makes the answer to the next wrong one slower. */
  wrong: number;
  waiting: number;
  last: Promise<unknown>;
}

const digestOf = promisify<string, Buffer, number, Buffer>(scrypt);

/** Asks for the passphrase and hands out sessions; forgets them all when the server stops. */
export class PassphraseGate {
  readonly #salt = randomBytes(16);
  readonly #key = randomBytes(32);
  readonly #digest: Buffer;
  readonly #addresses = new Map<string, Guesses>();

  constructor(
    passphrase: string,
    /** How long the first slow answer waits; each further one twice as long, to 40 times. */
    readonly slowMs = 250,
  ) {
    this.#digest = scryptSync(passphrase, this.#salt, 32);
  }

  /**
   * Whether the passphrase is right. Wrong ones are answered ever more slowly, by address: nobody waits behind the guesses
   * of another, and the right one is answered as soon as it is looked at.
   * @param address of whoever guesses
   */
  check(given: string, address: string): Promise<Heard> {
    const own = this.#guessesOf(address);
    if (own.waiting >= MOST_WAITING) return Promise.resolve('unheard');
    own.waiting++;
    const right = own.last.then(() => this.#isRight(given));
    own.last = right.catch(() => undefined);
    return right.then((is) => this.#answered(is, own)).finally(() => own.waiting--);
  }

  #guessesOf(address: string): Guesses {
    const own = this.#addresses.get(address) ?? { wrong: 0, waiting: 0, last: Promise.resolve() };
    // Put last: the first is the one heard of longest ago.
    this.#addresses.delete(address);
    this.#addresses.set(address, own);
    const [oldest] = this.#addresses.keys();
    if (this.#addresses.size > MOST_ADDRESSES) this.#addresses.delete(oldest);
    return own;
  }

  async #isRight(given: string): Promise<boolean> {
    const digest = await digestOf(given.slice(0, 1000), this.#salt, 32);
    return timingSafeEqual(digest, this.#digest);
  }

  /** A wrong guess keeps its place until it is answered; what comes after it is looked at meanwhile. */
  async #answered(right: boolean, own: Guesses): Promise<Heard> {
    own.wrong = right ? 0 : own.wrong + 1;
    if (own.wrong > 3) {
      const wait = this.slowMs * Math.min(40, 2 ** (own.wrong - 4));
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
    return right ? 'right' : 'wrong';
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
