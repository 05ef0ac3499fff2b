import type { Fault } from './fault';

/** Whether a fault stands at a path or inside it. */
export const isWithin = (fault: Pick<Fault, 'path'>, path: string): boolean =>
  fault.path === path || fault.path.startsWith(`${path}.`) || fault.path.startsWith(`${path}[`);
