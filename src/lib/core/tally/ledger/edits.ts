import type { GroupKey } from '../../arrange/groupKey';
import type { Measure } from '../../measure/measure';
import { withOrderMoved } from '../visit';
import type { LedgerSpec } from './spec';

const same = (a: Measure, b: Measure): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);

/** New measures; groups ordered by a measure follow it to its new place, or fall back to labels. */
export function withMeasures(spec: LedgerSpec, measures: Measure[]): LedgerSpec {
  const places = spec.measures.map((old) => measures.findIndex((m) => same(m, old)));
  return {
    ...spec,
    measures,
    groups: spec.groups.map((key): GroupKey => withOrderMoved(key, places)),
  };
}
