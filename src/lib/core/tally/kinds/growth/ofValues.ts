import { TallyRefused } from '../../../errors';
import { dayOfIso } from '../../../table/calendar';
import { counted } from '../../../table/format';
import { tableOf } from '../../answer/answer';
import type { TallyAnswer } from '../../kind/kind';
import { growthFacts } from './facts';
import { DAYS_IN_YEAR } from './rates';
import type { GrowthSpec } from './spec';

/** Growth between two typed values. */
export function growthOfValues(spec: GrowthSpec): TallyAnswer {
  const { values } = spec;
  if (!values) throw new TallyRefused('There is nothing to grow.');
  const dated =
    values.intervals === undefined &&
    values.firstDate !== undefined &&
    values.lastDate !== undefined;
  const intervals = dated
    ? (dayOfIso(values.lastDate ?? '') - dayOfIso(values.firstDate ?? '')) / DAYS_IN_YEAR
    : (values.intervals ?? NaN);
  const words = dated
    ? `${Number(intervals.toPrecision(6))} years of ${DAYS_IN_YEAR} days between ${values.firstDate} and ${values.lastDate}.`
    : `${counted(intervals, 'interval')} between the two values.`;
  const { columns, cells, warnings } = growthFacts(
    spec,
    {
      first: values.first,
      last: values.last,
      intervals,
      inYear: dated ? 1 : null,
      unit: '',
      words,
    },
    [values.first, values.last],
  );
  return {
    tables: [
      tableOf({
        name: 'main',
        caption: 'Growth',
        labels: 0,
        columns,
        rows: [{ kind: 'group', level: 0, cells }],
      }),
    ],
    warnings,
  };
}
