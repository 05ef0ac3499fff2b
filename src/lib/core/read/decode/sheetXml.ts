import { strToU8, zipSync } from 'fflate';
import { xmlText } from './xmlText';
import { unzip, type Member } from './zip';

/** What the XML of a sheet says of its cells and its reader does not, by their places (`C7`). */
export interface SheetCells {
  /** Formulas without a value, which no program has calculated yet. */
  readonly uncalculated: ReadonlyMap<string, string>;
  /** Whole numbers of more digits than a double has, as they are written. */
  readonly long: ReadonlyMap<string, string>;
  /** Days and moments as ISO 8601 writes them, whatever the cell's format. */
  readonly dated: ReadonlyMap<string, string>;
  /** Formulas that add up cells of several rows. */
  readonly sums: ReadonlySet<string>;
  /** Cells in bold type. */
  readonly bold: ReadonlySet<string>;
}

const NOTHING: SheetCells = {
  uncalculated: new Map(),
  long: new Map(),
  dated: new Map(),
  sums: new Set(),
  bold: new Set(),
};

const textOf = (members: readonly Member[], name: string): string => {
  const member = members.find((m) => m.name.toLowerCase() === name.toLowerCase());
  return member ? new TextDecoder().decode(member.bytes) : '';
};
const attribute = (tag: string, name: string): string | undefined =>
  new RegExp(`\\s${name}="([^"]*)"`).exec(tag)?.[1];

const BOOK = 'xl/workbook.xml';

/** The parts of a workbook of ISO/IEC 29500 that hold its sheets, in their order; '' for one that is not there. */
function partsOf(members: readonly Member[]): string[] {
  const targets = new Map(
    [...textOf(members, 'xl/_rels/workbook.xml.rels').matchAll(/<Relationship\s[^>]*>/g)].map(
      ([tag]) => [attribute(tag, 'Id'), attribute(tag, 'Target') ?? ''] as const,
    ),
  );
  return sheetTags(textOf(members, BOOK)).map((tag) => {
    const target = targets.get(attribute(tag, '\\w+:id')) ?? '';
    return target.startsWith('/') ? target.slice(1) : target && `xl/${target}`;
  });
}

const sheetTags = (book: string): string[] =>
  [...book.matchAll(/<(?:\w+:)?sheet\s[^>]*>/g)].map(([tag]) => tag);

/** The places of cell formats that are in bold type. */
function boldFormats(styles: string): Set<string> {
  const within = (name: string): string =>
    new RegExp(`<${name}[\\s>][\\s\\S]*?</${name}>`).exec(styles)?.[0] ?? '';
  const fonts = [...within('fonts').matchAll(/<font(?:\s[^>]*)?(?:\/>|>([\s\S]*?)<\/font>)/g)];
  const bold = new Set(
    fonts.flatMap(([, font = ''], k) =>
      /<b(?:\s*\/>|\s*>|\s+val="(?:1|true)")/.test(font) ? [String(k)] : [],
    ),
  );
  return new Set(
    [...within('cellXfs').matchAll(/<xf\s[^>]*>/g)].flatMap(([xf], k) =>
      bold.has(attribute(xf, 'fontId') ?? '') ? [String(k)] : [],
    ),
  );
}

/** A formula that adds up a stretch of several rows of one column. */
function addsRows(formula: string): boolean {
  const range =
    /^\s*(?:SUM|SUBTOTAL\s*\(\s*\d+\s*[,;])\s*\(?\s*\$?([A-Z]+)\$?(\d+):\$?([A-Z]+)\$?(\d+)/i.exec(
      formula,
    );
  return range !== null && range[1] === range[3] && range[2] !== range[4];
}

const CELL = /<c\s([^>]*?)(?:\/>|>([\s\S]*?)<\/c>)/g;

/**
 * Looks through the XML of a sheet once; where it holds none of what is looked for, hardly at all.
 * @param nth the place of the sheet in its workbook, from 0
 * @param limit bytes that its parts may unfold to
 * @throws IntakeError where the package is damaged
 */
export function sheetCells(bytes: Uint8Array, nth: number, limit: number): SheetCells {
  const about = unzip(bytes, limit, (name) =>
    /^xl\/(workbook\.xml|styles\.xml|_rels\/)/i.test(name),
  );
  const part = partsOf(about)[nth] ?? '';
  if (part === '') return NOTHING;
  const xml = textOf(
    unzip(bytes, limit, (name) => name.toLowerCase() === part.toLowerCase()),
    part,
  );
  const formats = boldFormats(textOf(about, 'xl/styles.xml'));
  const may = formats.size > 0 || xml.includes('<f') || / t="d"/.test(xml) || /\d{16}/.test(xml);
  if (!may) return NOTHING;
  const found = {
    uncalculated: new Map<string, string>(),
    long: new Map<string, string>(),
    dated: new Map<string, string>(),
    sums: new Set<string>(),
    bold: new Set<string>(),
  };
  for (const [, tag, inner = ''] of xml.matchAll(CELL)) {
    const about = ` ${tag}`;
    const at = attribute(about, 'r');
    if (at === undefined) continue;
    const style = attribute(about, 's');
    if (style !== undefined && formats.has(style)) found.bold.add(at);
    const type = attribute(about, 't') ?? 'n';
    const value = /<v(?:\s[^>]*)?>([^<]*)<\/v>/.exec(inner)?.[1] ?? '';
    const formula = /<f(?:\s[^>]*)?(?:\/>|>([^<]*)<\/f>)/.exec(inner);
    if (formula && value === '' && type !== 'str')
      found.uncalculated.set(at, xmlText(formula[1] ?? ''));
    if (formula && addsRows(formula[1] ?? '')) found.sums.add(at);
    if (type === 'd' && value !== '') found.dated.set(at, value);
    if (type === 'n' && /^-?\d{16,}$/.test(value) && !Number.isSafeInteger(Number(value)))
      found.long.set(at, value);
  }
  return found;
}

/**
 * A workbook whose sheets bear names of their own: of two of one name a reader that goes by names would
 * lose the first. The bytes themselves where none stands twice.
 */
export function withOwnNames(bytes: Uint8Array, limit: number): Uint8Array {
  const [member] = unzip(bytes, limit, (name) => name.toLowerCase() === BOOK);
  if (!member) return bytes;
  const book = new TextDecoder().decode(member.bytes);
  const taken = new Set<string>();
  let named = book;
  for (const tag of sheetTags(book)) {
    const name = attribute(tag, 'name') ?? '';
    let own = name;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${name} (${n})`;
    taken.add(own.toLowerCase());
    if (own !== name)
      named = named.replace(
        tag,
        tag.replace(/(\sname=")[^"]*"/, (_, before) => `${String(before)}${own}"`),
      );
  }
  if (named === book) return bytes;
  const all = unzip(bytes, limit).map((m) => [
    m.name,
    m.name === member.name ? strToU8(named) : m.bytes,
  ]);
  return zipSync(Object.fromEntries(all), { level: 1 });
}
