import { CURRENCIES } from '../table/format';

/** Reading numbers as text writes them (calculations, section 2). */
export interface NumberStyle {
  readonly thousands: '' | ',' | '.' | ' ' | "'";
  readonly decimal: '.' | ',';
  /** Text that may stand behind the number; '' for none. */
  readonly unit: string;
  /** Which of the two marks of accounts, behind a number, takes it off: `100 CR` is −100. Without it numbers with one are none. */
  readonly takenOff?: TakenOff | '';
}

/** The marks of accounts behind a number: a credit and a debit. */
export const ACCOUNT_MARKS = ['CR', 'DR'] as const;
export type TakenOff = (typeof ACCOUNT_MARKS)[number];

/** The mark of accounts behind a number: `100 CR`, `99.50Dr.`; null where there is none. */
const accountMark = (text: string): TakenOff | null => {
  const found = /\d\s*(CR|DR)\.?$/i.exec(text)?.[1].toUpperCase();
  return ACCOUNT_MARKS.find((mark) => mark === found) ?? null;
};

const POWERS = Float64Array.from({ length: 23 }, (_, k) => 10 ** k);
/** What a reader of cells found besides the value. */
export interface NumberFacts {
  decimals: number;
  percent: number;
  /** How often each currency sign stood beside a number. */
  currencies: Map<string, number>;
  /** How many had the unit of the style behind them. */
  withUnit: number;
  /** How often CR and DR stood behind a number. */
  credits: number;
  debits: number;
}

export const noNumberFacts = (): NumberFacts => ({
  decimals: 0,
  percent: 0,
  currencies: new Map(),
  withUnit: 0,
  credits: 0,
  debits: 0,
});

/** Digits that a double always holds. */
const HELD = 15;
/** Longer texts are no numbers. */
const LONGEST = 400;

/** A number, or NaN where the text is not one in this style. The text comes trimmed, not empty. */
export type NumberReader = (text: string) => number;

/**
 * A reader for one style.
 *
 * Plain digits are read directly: up to 15 significant digits and 22 decimals the quotient of two
 * exact doubles is the correctly rounded value (Clinger 1990, fast path); all else goes through
 * `Number`.
 * @param facts gathers the most decimals seen and how many values were percentages
 */
export function numberReader(style: NumberStyle, facts: NumberFacts): NumberReader {
  const mark = style.decimal.charCodeAt(0);
  return (text) => {
    const length = text.length;
    const negative = text.charCodeAt(0) === 45;
    let value = 0;
    let digits = 0;
    let decimals = -1;
    for (let i = negative ? 1 : 0; i < length; i++) {
      const c = text.charCodeAt(i);
      if (c >= 48 && c <= 57) {
        value = value * 10 + (c - 48);
        digits++;
        if (decimals >= 0) decimals++;
      } else if (c === mark && decimals < 0) decimals = 0;
      else return readStyled(text, style, facts);
    }
    if (digits === 0 || digits > 15 || decimals > 22) return readStyled(text, style, facts);
    if (decimals > 0) {
      if (decimals > facts.decimals) facts.decimals = decimals;
      value /= POWERS[decimals];
    }
    return negative ? -value : value;
  };
}

const escape = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&');
const patterns = new Map<string, RegExp>();

/** The whole form: sign or parentheses, currency, thousands groups, decimals, exponent, percent. */
function patternOf({ thousands, decimal }: NumberStyle): RegExp {
  const key = thousands + decimal;
  let pattern = patterns.get(key);
  if (!pattern) {
    const group =
      thousands === ' '
        ? '[ \\u00a0\\u2009\\u202f]'
        : thousands === "'"
          ? "['’]"
          : escape(thousands);
    const whole = thousands ? `(?:\\d{1,3}(?:${group}\\d{3})+|\\d+)` : '\\d+';
    const point = escape(decimal);
    pattern = new RegExp(`^(${whole})?(?:${point}(\\d*))?(?:[eE]([+-]?\\d{1,3}))?$`);
    patterns.set(key, pattern);
  }
  return pattern;
}

function readStyled(text: string, style: NumberStyle, facts: NumberFacts): number {
  if (text.length > LONGEST) return NaN;
  let body = text;
  let negative = false;
  if (body.startsWith('(') && body.endsWith(')')) {
    negative = true;
    body = body.slice(1, -1).trim();
  }
  const unit = style.unit !== '' && body.endsWith(style.unit);
  if (unit) body = body.slice(0, -style.unit.length).trimEnd();
  const account = style.takenOff ? accountMark(body) : null;
  if (account) body = body.replace(/\s*[a-z]{2}\.?$/i, '');
  const sign = /^[+\-−]/.exec(body);
  if (sign) {
    if (negative) return NaN;
    negative = sign[0] !== '+';
    body = body.slice(1).trimStart();
  }
  const last = body[body.length - 1];
  const currency = CURRENCIES.includes(body[0]) ? body[0] : CURRENCIES.includes(last) ? last : '';
  if (currency === body[0]) body = body.slice(1).trimStart();
  else if (currency) body = body.slice(0, -1).trimEnd();
  if (!sign && !negative && /^[-−]/.test(body)) {
    negative = true;
    body = body.slice(1);
  }
  let percent = false;
  if (body.endsWith('%')) {
    percent = true;
    body = body.slice(0, -1).trimEnd();
  }
  const match = patternOf(style).exec(body);
  if (!match || (match[1] === undefined && !match[2])) return NaN;
  const whole = (match[1] ?? '0').replace(/\D/g, '');
  const fraction = match[2] ?? '';
  // The exponent is shifted in the text, so that 12.5 % is rounded once, not twice.
  const exponent = Number(match[3] ?? 0) - (percent ? 2 : 0);
  const value = Number(`${whole}.${fraction || '0'}e${exponent}`);
  if (!Number.isFinite(value) || losesDigits(whole + fraction, value)) return NaN;
  // A number below zero that is marked as well says two things.
  if (account && negative) return NaN;
  if (account === 'CR') facts.credits++;
  if (account === 'DR') facts.debits++;
  if (account !== null && account === style.takenOff) negative = true;
  if (unit) facts.withUnit++;
  if (currency) facts.currencies.set(currency, (facts.currencies.get(currency) ?? 0) + 1);
  if (percent) facts.percent++;
  const decimals = fraction.length + (percent ? 2 : 0);
  if (decimals > facts.decimals && !match[3]) facts.decimals = decimals;
  return negative ? -value : value;
}

const digitsOf = (written: string): string =>
  written.replace(/e.*$/, '').replace(/[-.]/g, '').replace(/^0+/, '');

/** More digits than these are not compared: a double is written out in fewer by everyone. */
const MOST_DIGITS = 100;

/**
 * Whether a double is not the number that these digits write: some of them would be gone. A double that was exported
 * gives the same digits again, in its shortest form or written with as many, 0.10000000000000001 too. A number too small to
 * be told from 0 is lost as a whole.
 */
function losesDigits(digits: string, value: number): boolean {
  const significant = digits.replace(/^0+/, '').replace(/0+$/, '');
  if (significant !== '' && value === 0) return true;
  if (significant.length <= HELD) return false;
  if (significant.length > MOST_DIGITS) return true;
  const [shortest, asLong] = [value.toExponential(), value.toPrecision(significant.length)];
  return digitsOf(shortest) !== significant && digitsOf(asLong) !== significant;
}

/** Whether a text is a number of more digits than a double holds, or farther from or nearer to 0 than any. */
export function isTooLong(text: string): boolean {
  const plain = /^[-+]?(\d+)(?:[.,](\d+))?(?:[eE][-+]?\d+)?$/.exec(text);
  if (!plain) return false;
  const value = Number(text.replace(',', '.'));
  return !Number.isFinite(value) || losesDigits(plain[1] + (plain[2] ?? ''), value);
}

/** Trailing text behind a number, as a unit: `14 min` → `min`; '' where there is none. */
export function unitBehind(text: string): string {
  if (text.length > 60) return '';
  const match = /^[+\-−]?[\d.,' ]*\d\s*([A-Za-zµ°²³/]{1,12}\.?)$/.exec(text);
  return match && !/^[eE]\d*$/.test(match[1]) && !accountMark(text) ? match[1] : '';
}
