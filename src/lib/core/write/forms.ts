import type { Dialect, Values } from './dialect';

/** Open formats that figures and records are written in. */
export const OUT_FORMS = ['csv', 'json', 'xlsx', 'ods', 'md', 'html', 'arrow', 'parquet'] as const;
export type OutForm = (typeof OUT_FORMS)[number];

interface FormFacts {
  /** What an analyst reads in a menu. */
  readonly name: string;
  readonly media: string;
  /** Holds one table only, its columns typed. */
  readonly oneTable?: true;
  /** Is read by people: figures as shown. */
  readonly shown?: true;
}

export const FORMS: Readonly<Record<OutForm, FormFacts>> = {
  csv: { name: 'delimited text (.csv)', media: 'text/csv' },
  json: { name: 'JSON (.json)', media: 'application/json' },
  xlsx: {
    name: 'workbook (.xlsx)',
    media: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  },
  ods: { name: 'workbook (.ods)', media: 'application/vnd.oasis.opendocument.spreadsheet' },
  md: { name: 'Markdown tables (.md)', media: 'text/markdown', shown: true },
  html: { name: 'web page (.html)', media: 'text/html', shown: true },
  arrow: { name: 'Arrow (.arrow)', media: 'application/vnd.apache.arrow.file', oneTable: true },
  parquet: { name: 'Parquet (.parquet)', media: 'application/vnd.apache.parquet', oneTable: true },
};

/** How values are written in a form: as is chosen in delimited text, else as the form is for. */
export const valuesOf = (form: OutForm, { values }: Dialect): Values =>
  form === 'csv' ? values : FORMS[form].shown ? 'shown' : 'full';

/** The form of a name, by its ending; null: none of ours. */
export const formOfName = (name: string): OutForm | null =>
  OUT_FORMS.find((form) => name.toLowerCase().endsWith(`.${form}`)) ?? null;

/**
 * The form that a list of media types asks for first, as in an Accept header (RFC 9110, 12.5.1: of equal
 * weight, the one named first); null: none of ours.
 */
export function formOfAccept(accept: string): OutForm | null {
  const ranges = accept.split(',').map((range) => {
    const [media, ...params] = range.split(';').map((part) => part.trim().toLowerCase());
    const q = params.find((p) => p.startsWith('q='));
    return { media, weight: q === undefined ? 1 : Number(q.slice(2)) || 0 };
  });
  const wanted = ranges.filter(({ weight }) => weight > 0).sort((a, b) => b.weight - a.weight);
  for (const { media } of wanted) {
    const form = OUT_FORMS.find((name) => FORMS[name].media === media);
    if (form) return form;
  }
  return null;
}
