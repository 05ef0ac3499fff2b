import type { TallyAnswer } from '../../answer/answer';
import { relativeChange } from '../../answer/result';
import { signedShare } from '../../../table/format';

/** The change of the whole: `+21.3 %` */
export function contributionsFact({ tables: [main] }: TallyAnswer): string {
  const at = (key: string): number => main.columns.findIndex((c) => c.key === key);
  const change = relativeChange(main.number(0, at('before')), main.number(0, at('after')));
  return change === change ? signedShare(change) : '';
}
