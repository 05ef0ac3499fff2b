import { usualFormat } from '../../table/cell';
import { isText, type Column } from '../../table/column';
import type { FigureColumn } from './result';

/** A column of a result that holds values of a list's column as they stood in its records. */
export function valueColumn(column: Column): FigureColumn {
  const { id, name: title, type } = column;
  const about = { key: id, title, unit: isText(column) ? '' : column.unit, type, column: id };
  if (isText(column)) return about;
  if (type !== 'number')
    return {
      ...about,
      grain: column.grain,
      ...(column.calendar && { calendar: column.calendar }),
    };
  const { decimals, thousands } = usualFormat(column);
  return {
    ...about,
    decimals,
    ...(!thousands && { plain: true }),
    ...(column.percent && { percent: true }),
  };
}
