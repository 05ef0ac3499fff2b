import { z } from 'zod';
import type { Measure } from '../../measure/measure';
import { NumberFormat } from '../../table/format';

/** How numbers are shown, by column id, or by `column:measure` for one measure's figures. */
export const Formats = z.record(z.string(), NumberFormat);
export type Formats = Readonly<Record<string, NumberFormat>>;

export const formatKey = (measure: Measure): string => `${measure.column ?? ''}:${measure.kind}`;
