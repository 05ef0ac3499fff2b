import { looseForm } from '../../core/arrange/groupCodes';

/** Values that look the same but for case or outer spaces: one choice. */
export interface AlikeValues {
  /** The commonest way it is written. */
  readonly text: string;
  /** Every way it is written. */
  readonly texts: readonly string[];
  readonly count: number;
}

/**
 * @param items values with their counts, the commonest first
 * @example alikeValues([{ text: 'Ness', count: 9 }, { text: ' ness', count: 1 }]) // one choice of 10
 */
export function alikeValues(
  items: readonly { readonly text: string; readonly count: number }[],
): AlikeValues[] {
  const found = new Map<string, { text: string; texts: string[]; count: number }>();
  for (const { text, count } of items) {
    const form = looseForm(text);
    const known = found.get(form);
    if (!known) found.set(form, { text, texts: [text], count });
    else {
      known.texts.push(text);
      known.count += count;
    }
  }
  return [...found.values()];
}
