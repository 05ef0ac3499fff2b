import { counted } from '../../table/format';
import type { TallyAnswer } from '../answer';
import { groupRows } from '../groupRows';

/** `8 results` */
export const nestedFact = ({ tables: [main] }: TallyAnswer): string =>
  counted(groupRows(main), 'result');
