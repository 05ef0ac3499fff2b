import type { Band } from '../../core/arrange/bands';

/** Numbers typed with commas, semicolons or spaces between them, or which of them is none. */
export function readNumbers(text: string): { numbers: number[] } | { wrong: string } {
  const parts = text.split(/[,;\s]+/).filter((part) => part !== '');
  const numbers = parts.map((part) => Number(part.replace('−', '-')));
  const at = numbers.findIndex((value) => !Number.isFinite(value));
  if (at < 0) return { numbers };
  return { wrong: `“${parts[at]}” is no number. Type numbers, with commas between them.` };
}

/**
 * Bands as typed: name, from, to, one a line. An edge that says for itself whether it is in its band
 * stands with a bracket, as intervals are written (ISO 80000-2): `late, [10, 20)`.
 */
export const writeBands = (bands: readonly Band[]): string =>
  bands
    .map(({ label, from, to, fromIn, toIn }) => {
      const [open, close] = [
        fromIn === undefined ? '' : fromIn ? '[' : '(',
        toIn === undefined ? '' : toIn ? ']' : ')',
      ];
      return `${label ?? ''}, ${open}${from ?? ''}, ${to ?? ''}${close}`;
    })
    .join('\n');

/** The bands typed, or what is wrong with them and in which line. */
export function readBands(text: string): { bands: Band[] } | { wrong: string } {
  const bands: Band[] = [];
  for (const [k, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const parts = line.split(',').map((part) => part.trim());
    if (parts.length < 2)
      return { wrong: `Line ${k + 1}: type a name, a lower and an upper edge.` };
    const lower = /^([[(]?)(.*)$/.exec(parts.at(-2) ?? '');
    const upper = /^(.*?)([\])]?)$/.exec(parts.at(-1) ?? '');
    const label = parts.slice(0, -2).join(', ');
    const ends = [lower?.[2] ?? '', upper?.[1] ?? ''].map((end) =>
      end.trim() === '' ? null : Number(end.replace('−', '-')),
    );
    if (ends.some((end) => end !== null && !Number.isFinite(end)))
      return { wrong: `Line ${k + 1}: an edge is no number.` };
    bands.push({
      ...(label && { label }),
      from: ends[0],
      to: ends[1],
      ...(lower?.[1] && { fromIn: lower[1] === '[' }),
      ...(upper?.[2] && { toIn: upper[2] === ']' }),
    });
  }
  return bands.length ? { bands } : { wrong: 'Type one band a line.' };
}
