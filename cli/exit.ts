/** Exit codes: 0 done, 1 a run that failed, 2 an ask or a call that cannot be used. */
export class Failed extends Error {
  readonly code: 1 | 2 = 1;
}

export class Misused extends Failed {
  override readonly code = 2;
}
