import type { Band } from '../../core/arrange/bands';

/** Numbers typed with commas, semicolons or spaces between them, or which of them is none. */
export function readNumbers(text: string): { numbers: number[] } | { wrong: string } {
  const parts = text.split(/[,;\s]+/).filter((part) => part !== '');
  const numbers = parts.map((part) => Number(part.replace('−', '-')));
  const at = numbers.findIndex((value) => !Number.isFinite(value));
  if (at < 0) return { numbers };
  return { wrong: `“${parts[at]}” is no number. Type numbers, with commas between them.` };
}

/** Bands as typed: name, from, to, one a line. */
export const writeBands = (bands: readonly Band[]): string =>
  bands.map(({ label, from, to }) => `${label ?? ''}, ${from ?? ''}, ${to ?? ''}`).join('\n');

/** The bands typed, or what is wrong with them and in which line. */
export function readBands(text: string): { bands: Band[] } | { wrong: string } {
  const bands: Band[] = [];
  for (const [k, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const parts = line.split(',').map((part) => part.trim());
    if (parts.length < 2)
      return { wrong: `Line ${k + 1}: type a name, a lower and an upper edge.` };
    const [to, from] = [parts.at(-1) ?? '', parts.at(-2) ?? ''];
    const label = parts.slice(0, -2).join(', ');
    const ends = [from, to].map((end) => (end === '' ? null : Number(end.replace('−', '-'))));
    if (ends.some((end) => end !== null && !Number.isFinite(end)))
      return { wrong: `Line ${k + 1}: an edge is no number.` };
    bands.push({ ...(label && { label }), from: ends[0], to: ends[1] });
  }
  return bands.length ? { bands } : { wrong: 'Type one band a line.' };
}
