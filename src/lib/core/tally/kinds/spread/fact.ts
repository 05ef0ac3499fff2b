import { counted } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';
import type { SpreadSpec } from './spec';

/** `8 groups`, `3 columns` */
export const spreadFact = ({ tables: [main] }: TallyAnswer, spec: SpreadSpec): string =>
  spec.key ? counted(groupRows(main), 'group') : counted(spec.columns.length, 'column');
