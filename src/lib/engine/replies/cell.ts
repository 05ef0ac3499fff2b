import { z } from 'zod';
import { CellStateName } from '../cellStates';

export const LineCell = z.strictObject({ text: z.string(), state: CellStateName });
export type LineCell = z.infer<typeof LineCell>;
