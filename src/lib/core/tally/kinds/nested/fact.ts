import { counted } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';

/** `8 results` */
export const nestedFact = ({ tables: [main] }: TallyAnswer): string =>
  counted(groupRows(main), 'result');
