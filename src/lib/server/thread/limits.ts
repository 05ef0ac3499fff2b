/* Words of what is stopped, the same whether it stopped itself or was ended from outside. */

export const TOO_MUCH_MEMORY =
  'This took more memory than the server allows and was stopped. Ask for less at a time, or raise TALLY_LOFT_ASK_MEMORY_MB.';

export const tookTooLong = (ms: number): string =>
  `The ask took longer than ${Math.round(ms / 1000)} s and was stopped. Ask for less at a time, or set TALLY_LOFT_ASK_SECONDS.`;
