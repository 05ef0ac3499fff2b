import type { Measure } from '../../../measure/measure';
import { movedPlaces } from '../../spec/movedPlaces';
import { withOrderMoved } from '../../spec/visit';
import type { CrosstabSpec } from './spec';

/** New measures; groups ordered by a measure follow it to its new place, or fall back to labels. */
export function withMeasuresKept(spec: CrosstabSpec, measures: Measure[]): CrosstabSpec {
  const places = movedPlaces(spec.measures, measures);
  return {
    ...spec,
    measures,
    down: spec.down.map((key) => withOrderMoved(key, places)),
    across: spec.across.map((key) => withOrderMoved(key, places)),
  };
}
