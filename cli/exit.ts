/** Exit codes: 0 done, 1 a run that failed, 2 an ask or a call that cannot be used, 3 figures that disagree. */
export class Failed extends Error {
  readonly code: 1 | 2 | 3 = 1;
}

export class Misused extends Failed {
  override readonly code = 2;
}

/** A report that was made, of figures that do not agree with a known total or do not foot. */
export class Disagrees extends Failed {
  override readonly code = 3;
}
