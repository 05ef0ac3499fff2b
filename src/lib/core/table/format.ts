import { z } from 'zod';

/** How a column's numbers are shown (calculations, section 15). The stored value never changes. */
export const NumberFormat = z
  .strictObject({
    /** Digits behind the mark, or as many as the file had. */
    decimals: z.int().min(0).max(12).optional(),
    /** Significant digits; goes before `decimals`. */
    significant: z.int().min(1).max(15).optional(),
    thousands: z.boolean().default(true),
    style: z.enum(['plain', 'percent', 'currency']).default('plain'),
    /** Sign set before the number when the style is currency. */
    currency: z.string().max(4).default('£'),
    scale: z.enum(['one', 'thousand', 'million']).default('one'),
    negative: z.enum(['minus', 'parentheses']).default('minus'),
    /** Means are followed by ± the standard deviation, with so many significant digits. */
    deviation: z.union([z.literal(1), z.literal(2)]).optional(),
  })
  .strict();
export type NumberFormat = z.infer<typeof NumberFormat>;

export const plainFormat: NumberFormat = NumberFormat.parse({});

const SCALE = { one: 1, thousand: 1e3, million: 1e6 } as const;
const SCALE_SIGN = { one: '', thousand: ' k', million: ' m' } as const;

/** How many of what is shown make one: 100 for per cent, 0.001 for thousands. */
export const shownPerOne = ({ style, scale }: NumberFormat): number =>
  (style === 'percent' ? 100 : 1) / SCALE[scale];

/** Thousands marks into the whole part of a plain decimal. */
function withThousands(digits: string): string {
  const dot = digits.indexOf('.');
  const whole = dot < 0 ? digits : digits.slice(0, dot);
  const marked = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return dot < 0 ? marked : marked + digits.slice(dot);
}

/** Digits of |value| by the format; exponent form only where plain digits would mislead. */
function digitsOf(value: number, format: NumberFormat, fallbackDecimals: number): string {
  if (format.significant !== undefined) {
    const text = value.toPrecision(format.significant);
    return text.includes('e') ? Number(text).toString() : text;
  }
  const decimals = format.decimals ?? fallbackDecimals;
  return value >= 1e21 ? value.toString() : value.toFixed(decimals);
}

/**
 * A number as shown: `−1,234.50`, `(1,234.50)`, `12.0 %`, `£3.2 m`.
 * @param fallbackDecimals used where the format names no digits
 */
export function showNumber(
  value: number,
  format: NumberFormat = plainFormat,
  fallbackDecimals = 0,
): string {
  if (Number.isNaN(value)) return 'none';
  if (!Number.isFinite(value)) return value > 0 ? 'over range' : 'under range';
  const scaled = (value / SCALE[format.scale]) * (format.style === 'percent' ? 100 : 1);
  let digits = digitsOf(Math.abs(scaled), format, fallbackDecimals);
  if (format.thousands && !digits.includes('e')) digits = withThousands(digits);
  const negative = scaled < 0 && /[1-9]/.test(digits);
  if (format.style === 'currency') digits = format.currency + digits;
  digits += SCALE_SIGN[format.scale];
  if (format.style === 'percent') digits += ' %';
  if (!negative) return digits;
  return format.negative === 'parentheses' ? `(${digits})` : `−${digits}`;
}

/** The value with every digit it has, no marks: what another program can read. */
export const fullNumber = (value: number): string => (Number.isNaN(value) ? '' : String(value));

/** `1 record`, `2 records`, `1,020 records`. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${withThousands(String(n))} ${n === 1 ? one : many}`;
}

export const showCount = (n: number): string =>
  `${n < 0 ? '−' : ''}${withThousands(String(Math.abs(n)))}`;

/** A number within a sentence: `12,000`, `−2.5`; at most ten digits behind the mark, no zeros at their end. */
export function plainNumber(value: number): string {
  const digits = Math.abs(value) < 1e21 ? value.toFixed(10).replace(/\.?0+$/, '') : String(value);
  return (digits.includes('e') ? digits : withThousands(digits)).replace(/^-/, '−');
}

/**
 * A number as it was given, every digit of it: 12.5, 1,000,000, 1e-9. For sentences, which must mean the same when they
 * are read again.
 */
export function givenNumber(value: number): string {
  const text = String(Math.abs(value));
  return (value < 0 ? '−' : '') + (text.includes('e') ? text : withThousands(text));
}

/** A fraction as per cent: `97.0 %`, `−0.4 %`. */
export const showShare = (share: number, decimals = 1): string =>
  showNumber(share, { ...plainFormat, style: 'percent', decimals });

/** A change as per cent with its sign: `+13.2 %`, `−0.4 %`, `0.0 %`. */
export function signedShare(share: number, decimals = 1): string {
  const text = showShare(share, decimals);
  return share > 0 && /[1-9]/.test(text) ? `+${text}` : text;
}

/** A number with so many decimals: `2.5`. */
export const showDecimals = (value: number, decimals: number): string =>
  showNumber(value, { ...plainFormat, decimals });

/** The place of a number in a row: `1st`, `22nd`, `13th`, `57.5th`. */
export function ordinal(value: number): string {
  const whole = Number.isInteger(value) ? Math.abs(value) : 0;
  const teen = whole % 100 > 10 && whole % 100 < 14;
  const suffix = teen ? 'th' : (['th', 'st', 'nd', 'rd'][whole % 10] ?? 'th');
  return `${plainNumber(value)}${suffix}`;
}

/** `a`, `a and b`, `a, b and c`; or with another word before the last. */
export const listed = (items: readonly string[], word = 'and'): string =>
  items.length < 2
    ? items.join('')
    : `${items.slice(0, -1).join(', ')} ${word} ${items[items.length - 1]}`;

/** The clock where the reader is: `14:02`. */
export const showClock = (moment: Date | string): string =>
  new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

/** A moment where the reader is: `26 Nov 2026, 14:02`. */
export const showMoment = (moment: Date | string): string =>
  `${showDay(moment)}, ${showClock(moment)}`;

/** The day of a moment where the reader is: `26 Nov 2026`. @param moment a date, or a time in ISO 8601 */
export const showDay = (moment: Date | string): string =>
  new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** The currency signs that are read beside numbers. */
export const CURRENCIES = '£$€¥';

/** Whether a unit is a currency sign, which stands before a number. */
export const isCurrency = (unit: string): boolean => unit.length === 1 && CURRENCIES.includes(unit);

/** A shown number with its unit: `14 min`, `£1,341,175`, `−£12.50`; what is no number stays as it is. */
export function withUnit(text: string, unit: string): string {
  if (unit === '' || !/\d/.test(text)) return text;
  if (!isCurrency(unit)) return `${text} ${unit}`;
  return text.includes(unit) ? text : text.replace(/\d/, (digit) => unit + digit);
}

/** A heading with its unit: `Fares taken (£)`. */
export const headOf = (title: string, unit: string): string =>
  unit ? `${title} (${unit})` : title;
