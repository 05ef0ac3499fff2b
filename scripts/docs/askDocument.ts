import { schemaOf } from '$lib/core/ask/schemas';
import { DEFINITION_WORDS, RANK_WORDS } from '$lib/core/measure/quantileDefinitions';
import { MEASURES, needsOther, type MeasureKind } from '$lib/core/measure/measure';
import { METHOD_WORDS } from '$lib/core/forecast/method';
import { resultTables } from './resultTables';
import { TIES_WORDS } from '$lib/core/tally/kinds/ranking/places';

/** A part of a JSON Schema, as far as this document looks at it. */
interface Schema {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly default?: unknown;
  readonly items?: Schema;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly additionalProperties?: Schema | boolean;
  readonly required?: readonly string[];
  readonly oneOf?: readonly Schema[];
  readonly anyOf?: readonly Schema[];
  readonly $ref?: string;
  readonly $defs?: Readonly<Record<string, Schema>>;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly description?: string;
}

/** An ask that the tests read and answer, so that the example stays true. */
export const EXAMPLE = {
  lists: { fleet: { file: 'vessels.csv' } },
  joins: [{ list: 'fleet', on: [{ column: 'Vessel' }], bring: [{ column: 'Passengers' }] }],
  computed: [
    { name: 'Load', expression: 'boarded / NULLIF(passengers, 0)' },
    { name: 'Late', expression: "CASE WHEN delay >= 10 THEN 'late' ELSE 'on time' END" },
  ],
  ladder: {
    rungs: [
      {
        condition: { kind: 'leaf', column: 'Cancelled', test: { test: 'is', values: ['no'] } },
      },
    ],
    setAside: { records: [3] },
  },
  tallies: [
    {
      kind: 'crosstab',
      title: 'Load by route and quarter',
      down: [{ column: 'Route', loose: true }],
      across: [{ column: 'Sailed on', period: 'quarter' }],
      measures: [{ kind: 'mean', column: 'Load' }],
      count: true,
    },
    {
      kind: 'frequency',
      key: { column: 'Delay', bands: { by: 'edges', edges: [0, 5, 10, 30, 120] } },
    },
    {
      kind: 'forecast',
      series: {
        column: 'Sailed on',
        period: 'month',
        measure: { kind: 'sum', column: 'Boarded' },
      },
    },
  ],
} as const;

/** Types with a section of their own: how they are called, and where they stand. */
const TYPES: Readonly<Record<string, { one: string; heading: string }>> = {
  Condition: { one: 'a condition', heading: 'Conditions' },
  GroupKey: { one: 'a group key', heading: 'Group keys' },
  GroupOrder: { one: 'an order of groups', heading: 'Orders of groups' },
  Bands: { one: 'bands', heading: 'Bands' },
  Band: { one: 'a band', heading: 'A band' },
  Calendar: { one: 'a calendar', heading: 'Calendars' },
  SortKey: { one: 'a sort key', heading: 'Sort keys' },
  Measure: { one: 'a measure', heading: 'Measures' },
  Series: { one: 'a series', heading: 'Series' },
};

const linkTo = (name: string): string => {
  const { one, heading } = TYPES[name];
  return `[${one}](#${heading.toLowerCase().replaceAll(' ', '-')})`;
};

const nameOf = ({ $ref }: Schema): string => $ref?.split('/').pop() ?? '';

const resolve = (schema: Schema, root: Schema): Schema => {
  const name = schema.$ref?.split('/').pop();
  return name && root.$defs?.[name] ? { ...root.$defs[name], ...schema } : schema;
};

/** `a list of texts`, `one of "a", "b"`, `a number`. */
function typeWords(given: Schema, root: Schema, depth = 0): string {
  if (nameOf(given) in TYPES) return linkTo(nameOf(given));
  const schema = resolve(given, root);
  if (schema.const !== undefined) return `\`${JSON.stringify(schema.const)}\``;
  if (schema.enum)
    return schema.enum.length > 16
      ? 'one of those below'
      : schema.enum.map((v) => `\`${JSON.stringify(v)}\``).join(', ');
  const branches = schema.oneOf ?? schema.anyOf;
  if (branches) {
    if (branches.some((b) => resolve(b, root).properties?.kind)) return '[a tally](#tallies)';
    const words = [...new Set(branches.map((b) => typeWords(b, root, depth + 1)))];
    return words.join(' or ');
  }
  if (schema.type === 'array')
    return `a list${schema.items ? ` of: ${typeWords(schema.items, root, depth + 1)}` : ''}`;
  if (schema.properties)
    return depth > 2
      ? 'an object'
      : `{ ${Object.keys(schema.properties)
          .map((key) => `\`${key}\``)
          .join(', ')} }`;
  if (schema.type === 'object') return 'an object';
  const limit = (v: number | undefined): string =>
    v === undefined || Math.abs(v) > 1e9 ? '' : String(v);
  const range = [limit(schema.minimum), limit(schema.maximum)];
  const words =
    {
      string: 'text',
      integer: 'whole number',
      number: 'number',
      boolean: 'true or false',
      null: 'null',
    }[schema.type ?? ''] ?? 'anything';
  return range[0] || range[1] ? `${words} ${range[0]}..${range[1]}` : words;
}

/** A line for each key; those of objects without a name of their own stand under it. */
function lines(given: Schema, root: Schema, before: string, among = ''): string[] {
  const schema = resolve(given, root);
  return Object.entries(schema.properties ?? {}).flatMap(([key, value]) => {
    const resolved = resolve(value, root);
    const fallback =
      resolved.default !== undefined
        ? `\`${JSON.stringify(resolved.default)}\``
        : schema.required?.includes(key)
          ? '**needed**'
          : '—';
    const line = `| \`${before}${key}\`${among} | ${typeWords(value, root).replaceAll('|', '\\|')} | ${fallback} | ${value.description ?? ''} |`;
    return [line, ...inner(value, root, `${before}${key}`)];
  });
}

/** The keys below a key: of its object, or of each of its forms. */
function inner(value: Schema, root: Schema, path: string): string[] {
  if (nameOf(value) in TYPES) return [];
  const schema = resolve(value, root);
  if (schema.properties) return lines(schema, root, `${path}.`);
  const forms = schema.oneOf ?? schema.anyOf ?? [];
  return forms.flatMap((form) => {
    const of = resolve(form, root).properties?.of?.const;
    return typeof of === 'string' ? lines(form, root, `${path}.`, ` (${of})`) : [];
  });
}

const table = (given: Schema, root: Schema): string =>
  [
    '| key | value | unless given | what it is |',
    '| --- | --- | --- | --- |',
    ...lines(given, root, ''),
  ].join('\n');

const variants = (schema: Schema): readonly Schema[] => schema.oneOf ?? schema.anyOf ?? [];

/** What can be asked of one column, a line for each test. */
function tests(root: Schema): string {
  const leaf = variants(root.$defs?.Condition ?? {}).find((s) => s.properties?.test);
  return variants(resolve(leaf?.properties?.test ?? {}, root))
    .map((given) => {
      const { properties = {} } = resolve(given, root);
      const { test, ...others } = properties;
      const names = (test?.enum ?? [test?.const]).map((name) => `\`${String(name)}\``).join(', ');
      const keys = Object.entries(others).map(
        ([key, value]) => `\`${key}\` (${typeWords(value, root, 1)})`,
      );
      return `- ${names}${keys.length ? `: ${keys.join(', ')}` : ''}`;
    })
    .join('\n');
}

/** The Markdown of `docs/ask.md`, from the schemas that asks are checked by. */
export function askDocument(): string {
  const root = schemaOf('ask') as Schema;
  const at = (key: string): Schema => resolve(root.properties?.[key] ?? {}, root);
  const item = (schema: Schema): Schema => resolve(schema.items ?? {}, root);
  const tallies = variants(item(at('tallies'))).map((s) => resolve(s, root));
  const ledger = tallies.find((t) => t.properties?.kind?.const === 'ledger') ?? {};
  const forms = (name: string): string =>
    variants(root.$defs?.[name] ?? {})
      .map((s) => table(s, root))
      .join('\n\n');
  const OTHER = {
    weights: '`other`: weights',
    sum: '`other`: the column whose sum stands below, or is taken away',
    shown: '`other`: the column shown',
  } as const;
  const besides = (kind: MeasureKind): string => {
    const other = needsOther(kind);
    if (other !== null) return OTHER[other];
    if (kind === 'percentile') return '`percent` of the values below';
    return kind === 'trimmedMean' ? '`percent` cut at each end' : '';
  };
  const measures = (Object.keys(MEASURES) as MeasureKind[]).map(
    (kind) =>
      `| \`${kind}\` | ${MEASURES[kind].words} | ${MEASURES[kind].types.join(', ')} | ${besides(kind)} |`,
  );
  const listed = (words: Readonly<Record<string | number, string>>): string =>
    Object.entries(words)
      .map(([key, words]) => `- \`${key}\`: ${words}`)
      .join('\n');
  return `# The ask

Made from the schemas by \`npm run docs\`; a test fails when it is stale. \`tally schema\` writes the same as JSON Schema.

One JSON document asks for any number of tallies over a list. The command line and the HTTP interface take the same. Columns are named by their name or id, case and outer spaces ignored where that is clear; wherever a column is named, \`expression: …\` works one out on the spot (see expressions.md). Records are numbered from 1. (An ask of \`version\` 1 or 2 counts them from 0 and is read as it was meant; one that says no version is of the newest.) What each calculation means stands in calculations.md.

\`\`\`json
${JSON.stringify(EXAMPLE, null, 2)}
\`\`\`

A bad ask is refused whole, with every fault named by its path (\`tallies[0].measures[1].column\`) and a remedy.

## The document

${table(root, root)}

### \`lists.NAME\`: another list

${table(resolve((at('lists').additionalProperties as Schema | undefined) ?? {}, root), root)}

### \`reshape[]\`

${variants(item(at('reshape')))
  .map((s) => `\`${String(resolve(s, root).properties?.do?.const)}\`\n\n${table(s, root)}`)
  .join('\n\n')}

### \`joins[]\`

${table(item(at('joins')), root)}

### \`computed[]\`

${table(item(at('computed')), root)}

### \`ladder\`

${table(at('ladder'), root)}

### \`also[]\`: other lists in the same ask

${table(item(at('also')), root)}

### Conditions

A condition asks something of one column (\`leaf\`), is an expression, names \`records\` by number, or joins others: by and (\`all\`), by or (\`any\`), or those of which no part holds (\`none\`). Each can be negated. A blank is neither true nor false: it is not kept, nor is it by \`not\`; \`none\` keeps it, since no part holds. The \`where\` of a row of a result is such a condition: given to a rung it narrows to the very records of the row.

${variants(root.$defs?.Condition ?? {})
  .map((s) => table(s, root))
  .join('\n\n')}

Tests of a \`leaf\`:

${tests(root)}

Where the column holds dates, \`value\`, \`from\` and \`to\` are text: a day (\`"2024-04-30"\`), or a month, quarter,
week or year (\`"2024-04"\`, \`"2024-Q2"\`, \`"2024-W07"\`, \`"2024"\`), which means the whole of it: \`le "2024"\` is up
to its end. A number is never a date, and \`"03/04/2024"\` is refused because it can be read two ways. Regular
expressions have ECMAScript's form with the u flag, without references back and looks ahead or behind.

### Group keys

${table(item(resolve(ledger.properties?.groups ?? {}, root)), root)}

### Orders of groups

${forms('GroupOrder')}

### Bands

A band has its lower edge in and its upper edge out, the outermost ones both, unless \`edgeIn\` or the band itself says otherwise. Every overlap and every gap is named in the warnings; a value in several bands counts in the first.

${forms('Bands')}

### A band

${table(root.$defs?.Band ?? {}, root)}

### Calendars

${table(root.$defs?.Calendar ?? {}, root)}

### Sort keys

${table(root.$defs?.SortKey ?? {}, root)}

### Series

${table(root.$defs?.Series ?? {}, root)}

Periods are named \`"2024"\`, \`"2024-H1"\`, \`"2024-Q2"\`, \`"2024-04"\`, \`"2024-W07"\` or \`"2024-04-30"\`, or by a day in them. A bare year is the one that goes by this name in the calendar.

### Measures

${table(root.$defs?.Measure ?? {}, root)}

| kind | is the | of columns | besides |
| --- | --- | --- | --- |
${measures.join('\n')}

Medians, quartiles and percentiles take a \`definition\` of Hyndman and Fan, 7 unless given:

${listed(DEFINITION_WORDS)}

## Tallies

Every tally may have a \`title\` and a \`scope\`: \`counted\` (unless given), \`narrowed\` (before setting aside) or \`all\`.

${tallies.map((t) => `### \`${String(t.properties?.kind?.const)}\`\n\n${table(t, root)}`).join('\n\n')}

Ties of a ranking:

${listed(TIES_WORDS)}

Percentile ranks:

${listed(RANK_WORDS)}

Methods of a forecast, besides \`best\`:

${listed(METHOD_WORDS)}

## The result

The tables of each kind, and the keys of their columns (\`g1\`, \`g2\`… are the group keys in turn, \`m1\`… the measures, \`aN\` the groups across):

${resultTables()}

\`list\` (records and columns as prepared), \`counts\` (What counts, rung by rung), \`prepared\` (what joins left without a match), and for each tally its sentence (\`words\`), \`tables\`, \`warnings\` and \`footing\`. A table has \`columns\` and \`rows\`; a figure is a number with all its digits, a text (dates in ISO 8601), or null: none. Rows and columns carry \`where\`, the condition their records meet; the figure where they cross stands on the records that meet both. With \`leaveOut\` an answer goes without \`where\` or \`marks\`. \`tally schema result\` writes its form.

For programs every label has the value behind it: \`keys\` of a row, one for each of its labels, and \`keys\` of a cross-tab's column. A number is a number there (12000 for the label “12,000”), a period its first day, and blank is null, which is not the text “blank”. A row in which others stand together says how many: \`stands\`.

As CSV the columns of labels hold these values, figures have all their digits, and the last three columns say what a row is: \`row kind\` (\`group\`, \`total\`, \`others\`, \`outside\`), \`row level\` (0 the outermost) and \`row label\`, as people read it.
`;
}
