import { withUnit } from '../../core/table/format';
import { numberText } from '../../core/tally/answer/figureText';
import type { Shape } from '../../engine/protocol';
import type { Series } from '../chart/figures';

/** The lines of groups as a chart draws them: each figure opens its row of the table by groups. */
export const seriesLines = (
  { lines, steps, stepKeys, groupsAt, unit, format }: Extract<Shape, { kind: 'series' }>,
  column: string,
): Series[] =>
  lines.map(({ name, values, keys }) => ({
    name,
    figures: values.map((value, k) => ({
      value: value ?? NaN,
      words: `${name}, ${steps[k]}: ${value === null ? 'none' : withUnit(numberText(value, format), unit)}`,
      place: {
        table: 'groups',
        row: stepKeys[k].map((key, at) => (groupsAt.includes(at) ? keys[at] : key)),
        column,
      },
    })),
  }));
