import type { Fault } from './fault';
import { isWithin } from './faultPath';
import { kindOf } from '../kind/kinds';
import type { Tally } from './specs';
import type { SpecVisitor } from './visit';

/**
 * A tally without the parts that are at fault: they take no part in its figures. What it cannot do
 * without stays, and is at fault still.
 * @param path where the tally stands in the paths of the faults
 */
export function withoutFaults(tally: Tally, faults: readonly Fault[], path: string): Tally {
  const keep = <T>(part: T, at: string): T | null =>
    faults.some((fault) => isWithin(fault, at)) ? null : part;
  const visitor: SpecVisitor = {
    key: keep,
    sort: keep,
    measure: keep,
    condition: keep,
    column: keep,
  };
  return kindOf(tally).visit(visitor, path);
}
