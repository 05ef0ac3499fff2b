import { showCount } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';
import { ranksRecords, type RankingSpec } from './spec';

/** `first 5` */
export const rankingFact = ({ tables: [main] }: TallyAnswer, spec: RankingSpec): string =>
  spec.top !== undefined
    ? `first ${showCount(spec.top)}`
    : spec.bottom !== undefined
      ? `last ${showCount(spec.bottom)}`
      : `${showCount(!ranksRecords(spec) ? groupRows(main) : main.length)} places`;
