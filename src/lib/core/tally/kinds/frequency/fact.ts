import { counted } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';
import type { FrequencySpec } from './spec';

/** `6 bands`, `9 values` */
export const frequencyFact = ({ tables: [main] }: TallyAnswer, spec: FrequencySpec): string =>
  counted(groupRows(main), spec.key.bands ? 'band' : spec.key.period ? 'period' : 'value');
