import type { GroupKey } from '../../../arrange/groupKey';
import type { Measure } from '../../../measure/measure';
import { movedPlaces } from '../../spec/movedPlaces';
import { withOrderMoved } from '../../spec/visit';
import type { LedgerSpec } from './spec';

/** New measures; groups ordered by a measure follow it to its new place, or fall back to labels. */
export function withMeasures(spec: LedgerSpec, measures: Measure[]): LedgerSpec {
  const places = movedPlaces(spec.measures, measures);
  return {
    ...spec,
    measures,
    groups: spec.groups.map((key): GroupKey => withOrderMoved(key, places)),
  };
}
