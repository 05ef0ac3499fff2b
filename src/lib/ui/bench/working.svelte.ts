/** What the calculation of the figures on the page is at. */
export class Working {
  /** Newer figures are on their way; those that stand are older than the sentence. */
  busy = $state(false);
  /** Work that has taken a while, and the share of it that is done where that is known. */
  long = $state.raw<{ readonly share: number | null } | null>(null);
  /** It was stopped: what stands is older than the sentence, until it is computed again. */
  stopped = $state(false);

  #last = 0;

  /** @param cancel has the work under way given up */
  constructor(readonly cancel: () => void) {}

  /** @returns which work it is: older work may end while newer is under way */
  begin(): number {
    this.busy = true;
    this.stopped = false;
    this.long = null;
    return ++this.#last;
  }

  told(share: number | null): void {
    if (this.busy) this.long = { share };
  }

  end(work = this.#last): void {
    if (work !== this.#last) return;
    this.busy = false;
    this.long = null;
  }

  stop(): void {
    this.cancel();
    this.end();
    this.stopped = true;
  }
}
