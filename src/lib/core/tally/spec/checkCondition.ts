import { BadCondition, ExpressionError } from '../../errors';
import { checkCondition as checkExpressionCondition } from '../../expression/check';
import type { Condition, Leaf } from '../../selection/condition';
import { testColumn } from '../../selection/evaluate';
import { finish } from '../../task/task';
import { fullBitset } from '../../table/bitset';
import { isText, type Column } from '../../table/column';
import type { Faults } from './fault';

/**
 * Names everything in a condition that does not fit the list: columns, types, points that cannot be
 * read, regular expressions, expressions. Tests are tried on the columns without any record.
 */
export function checkCondition(condition: Condition, faults: Faults, path: string): void {
  switch (condition.kind) {
    case 'expression':
      checkSource(condition.expression, faults, `${path}.expression`);
      return;
    case 'leaf': {
      const column = faults.column(`${path}.column`, condition.column);
      if (column) checkLeaf(condition, column, faults, `${path}.test`);
      return;
    }
    case 'records': {
      const beyond = condition.records.find((n) => n > faults.records);
      if (beyond !== undefined)
        faults.add(
          `${path}.records`,
          `There is no record ${beyond}: the list has ${faults.records}.`,
          'Records are numbered from 1.',
        );
      return;
    }
    default:
      condition.parts.forEach((part, k) => checkCondition(part, faults, `${path}.parts[${k}]`));
  }
}

function checkSource(source: string, faults: Faults, path: string): void {
  try {
    checkExpressionCondition(source, faults.columns);
  } catch (error) {
    if (!(error instanceof ExpressionError)) throw error;
    faults.add(path, `Character ${error.span.start + 1}: ${error.fault}`, error.remedy);
  }
}

function checkLeaf(leaf: Leaf, column: Column, faults: Faults, path: string): void {
  if (leaf.test.test === 'listed') return;
  try {
    // An expression's column has the expression for its id: it is looked up as the column it is.
    finish(testColumn(emptied(column), leaf.test, 0, fullBitset(0)));
  } catch (error) {
    if (!(error instanceof BadCondition)) throw error;
    faults.add(
      path,
      error.message,
      isText(column)
        ? 'Text is asked with is, contains, startsWith, endsWith, pattern or regex.'
        : 'Ask compare, between, or a test that suits the type of the column.',
    );
  }
}

const emptied = (column: Column): Column =>
  isText(column)
    ? { ...column, codes: new Int32Array(0), dictionary: [] }
    : { ...column, values: new Float64Array(0), unread: new Map() };
