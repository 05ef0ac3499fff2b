import type { TallyKind } from '../../kind/kind';
import { checkPeriodName } from '../../series/periodNamed';
import { checkSeries, visitSeries } from '../../series/series';
import { growthFact } from './fact';
import { growthOfSeries } from './ofSeries';
import { growthOfValues } from './ofValues';
import { growthSentence } from './sentence';
import type { GrowthSpec } from './spec';

export const growthKind: TallyKind<GrowthSpec> = {
  inParts: () => true,
  check(spec, faults, path) {
    if (spec.series && spec.values)
      faults.add(`${path}.values`, 'Both a series and two values are given.', 'Take one of them.');
    if (spec.series) {
      checkSeries(spec.series, faults, `${path}.series`);
      const { period, calendar } = spec.series;
      checkPeriodName(spec.from, period, calendar, faults, `${path}.from`);
      checkPeriodName(spec.to, period, calendar, faults, `${path}.to`);
    }
    if (!spec.series && !spec.values)
      faults.add(`${path}.series`, 'There is nothing to grow.', 'Name a series, or two values.');
    const { values } = spec;
    if (values && values.intervals === undefined && !(values.firstDate && values.lastDate))
      faults.add(
        `${path}.values.intervals`,
        'How far the values lie apart is not said.',
        'Give the intervals between them, or firstDate and lastDate.',
      );
    if (values?.firstDate && values.lastDate && values.firstDate >= values.lastDate)
      faults.add(
        `${path}.values.lastDate`,
        'The last date does not come after the first.',
        'Turn them round.',
      );
  },
  visit: (spec, visitor, path) =>
    spec.series ? { ...spec, series: visitSeries(spec.series, visitor, `${path}.series`) } : spec,
  *compute(input, spec) {
    return spec.series ? yield* growthOfSeries(input, spec, spec.series) : growthOfValues(spec);
  },
  sentence: growthSentence,
  fact: growthFact,
  drawnWhole: () => ['periods'],
};
