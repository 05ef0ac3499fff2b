import { OUT_FORMS, type OutForm } from '../../core/write/forms';
import { RECORD_FORMS, type RecordForm } from '../../core/write/tableFile';

const KEPT = 'tally-loft-form';

/** The form that files were saved in last; delimited text before that, and where nothing is kept. */
export function formChosen(): OutForm {
  try {
    const kept = localStorage.getItem(KEPT);
    return OUT_FORMS.find((form) => form === kept) ?? 'csv';
  } catch {
    return 'csv';
  }
}

export function rememberForm(form: OutForm): void {
  try {
    localStorage.setItem(KEPT, form);
  } catch {
    // Where the browser keeps nothing, it is chosen anew.
  }
}

/** The same form where records can be written in it. */
export const recordForm = (form: OutForm): RecordForm | null =>
  RECORD_FORMS.find((name) => name === form) ?? null;
