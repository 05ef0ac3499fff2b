import { isNamedIdentifier } from '../../read/identifier';
import type { Column, ScalarColumn } from '../../table/column';
import { looksLikeYears } from '../../table/years';

/** Columns worth a sum unasked: numbers that are neither years nor shares, nor named like identifiers. */
export const addsUp = (column: Column): column is ScalarColumn =>
  column.type === 'number' &&
  !column.percent &&
  !looksLikeYears(column) &&
  // A unit says that it is a quantity, whatever its name.
  (column.unit !== '' || column.decimals > 0 || !isNamedIdentifier(column.name));
