import {
  charsetOf,
  Dialect,
  DIALECT_CHOICES,
  DIALECT_PARTS,
  USUAL_DIALECT,
} from '$lib/core/write/dialect';
import { FORMS, formOfAccept, OUT_FORMS, type OutForm } from '$lib/core/write/forms';
import { BadInput } from '../errors';

/**
 * The form that a request asks for: by `?as=`, or by what it accepts (RFC 9110, section 12.5.1); null:
 * it names none of ours.
 * @throws BadInput for an `as` that is none
 */
export function formAsked(request: Request, url: URL): OutForm | null {
  const as = url.searchParams.get('as');
  if (as === null) return formOfAccept(request.headers.get('accept') ?? '');
  const form = OUT_FORMS.find((name) => name === as);
  if (!form) throw new BadInput(`“as” is one of ${OUT_FORMS.join(', ')}.`);
  return form;
}

/**
 * How delimited text is asked for: `?delimiter=semicolon&decimal=comma&encoding=windows-1252`.
 * @throws BadInput
 */
export function dialectAsked(url: URL): Dialect {
  const asked = DIALECT_PARTS.flatMap((part): [string, string][] => {
    const value = url.searchParams.get(part);
    return value === null ? [] : [[part, value]];
  });
  const read = Dialect.safeParse(Object.fromEntries(asked));
  if (read.success) return read.data;
  const choices = DIALECT_PARTS.map(
    (part) => `“${part}” one of ${DIALECT_CHOICES[part].join(', ')}`,
  );
  throw new BadInput(`The query can say: ${choices.join('; ')}.`);
}

const TEXTS: readonly OutForm[] = ['csv', 'md', 'html'];

/** A file as the answer to a request; what a browser would not show is saved under its name. */
export const fileResponse = (
  bytes: Uint8Array,
  form: OutForm,
  name: string,
  { encoding }: Dialect = USUAL_DIALECT,
): Response =>
  new Response(bytes.slice(), {
    headers: {
      'content-type': `${FORMS[form].media}${TEXTS.includes(form) ? `; charset=${form === 'csv' ? charsetOf(encoding) : 'utf-8'}` : ''}`,
      ...(form !== 'json' &&
        form !== 'html' && {
          'content-disposition': `attachment; filename="${name}.${form}"`,
        }),
      // Nothing of a page runs, wherever it is opened.
      ...(form === 'html' && {
        'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:",
      }),
    },
  });
