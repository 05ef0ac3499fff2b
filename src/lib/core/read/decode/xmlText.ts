const NAMED: Readonly<Record<string, string>> = {
  quot: '"',
  apos: "'",
  lt: '<',
  gt: '>',
  amp: '&',
};

/**
 * Text as XML writes it, as it is meant (XML 1.0, 4.1 and 4.6).
 * @example xmlText('Fares &amp; more') // 'Fares & more'
 */
export const xmlText = (text: string): string =>
  text.replace(
    /&(?:#x([0-9a-f]{1,6})|#(\d{1,7})|(quot|apos|lt|gt|amp));/gi,
    (whole, hex, decimal, name) => {
      if (name) return NAMED[String(name).toLowerCase()] ?? whole;
      const code = hex ? parseInt(hex, 16) : Number(decimal);
      return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    },
  );
