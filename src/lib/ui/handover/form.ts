import { Dialect } from '../../core/write/dialect';
import { OUT_FORMS, type OutForm } from '../../core/write/forms';
import { RECORD_FORMS, type RecordForm } from '../../core/write/tableFile';

const KEPT = { form: 'tally-loft-form', dialect: 'tally-loft-dialect' } as const;

function kept(what: keyof typeof KEPT): string | null {
  try {
    return localStorage.getItem(KEPT[what]);
  } catch {
    return null;
  }
}

function keep(what: keyof typeof KEPT, text: string): void {
  try {
    localStorage.setItem(KEPT[what], text);
  } catch {
    // Where the browser keeps nothing, it is chosen anew.
  }
}

/** The form that files were saved in last; delimited text before that, and where nothing is kept. */
export const formChosen = (): OutForm => OUT_FORMS.find((form) => form === kept('form')) ?? 'csv';

export const rememberForm = (form: OutForm): void => keep('form', form);

/** Until it is said otherwise, values are handed over as they are looked at. */
const Kept = Dialect.extend({ values: Dialect.shape.values.unwrap().default('shown') });

/** As most programs open it by a double click: the mark tells them that it is UTF-8. */
const FIRST: Dialect = Kept.parse({ encoding: 'utf-8-marked' });

/** How delimited text was written last. */
export function dialectChosen(): Dialect {
  try {
    return Kept.safeParse(JSON.parse(kept('dialect') ?? '')).data ?? FIRST;
  } catch {
    return FIRST;
  }
}

export const rememberDialect = (dialect: Dialect): void => keep('dialect', JSON.stringify(dialect));

/** The same form where records can be written in it. */
export const recordForm = (form: OutForm): RecordForm | null =>
  RECORD_FORMS.find((name) => name === form) ?? null;
