import { showCount } from '../../table/format';
import type { TallyAnswer } from '../answer';
import { groupRows } from '../groupRows';
import type { RankingSpec } from './spec';

/** `first 5` */
export const rankingFact = ({ tables: [main] }: TallyAnswer, spec: RankingSpec): string =>
  spec.top !== undefined
    ? `first ${showCount(spec.top)}`
    : spec.bottom !== undefined
      ? `last ${showCount(spec.bottom)}`
      : `${showCount(spec.groups.length ? groupRows(main) : main.length)} places`;
