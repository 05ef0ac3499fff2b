import type { Shape } from '../../engine/protocol';
import type { Series } from '../chart/figures';

/** The lines of groups as a chart draws them: each figure opens its row of the table by groups. */
export const seriesLines = (shape: Extract<Shape, { kind: 'series' }>, column: string): Series[] =>
  shape.lines.map(({ name, values, keys }) => ({
    name,
    figures: values.map((value, k) => ({
      value: value ?? NaN,
      words: `${name}, ${shape.steps[k]}: ${value === null ? 'none' : value.toLocaleString('en')}${shape.unit ? ` ${shape.unit}` : ''}`,
      place: { table: 'groups', row: keys.with(shape.stepAt, shape.stepKeys[k]), column },
    })),
  }));
