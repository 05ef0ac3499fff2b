import { needsOther } from '../../measure/measure';
import type { Part, Slot } from './sentence';

const STOP = /\.\s*$/;

/** Words of ours, which a capital was put to; a name keeps its own. */
const beginsWithMeasure = <Spec>({ takes }: Slot<Spec>): boolean =>
  takes.a === 'measure' && takes.value !== null && needsOther(takes.value.kind) !== 'shown';

/**
 * A sentence to stand within another: without its full stop, and without a capital at its beginning.
 * @param name of the list: where the sentence begins with it, it stays as it is
 */
export function withoutEnd<Spec>(parts: readonly Part<Spec>[], name: string): Part<Spec>[] {
  const small = (text: string): string =>
    name !== '' && text.startsWith(name) ? text : text.charAt(0).toLowerCase() + text.slice(1);
  const stop = parts.findLastIndex((part) => typeof part === 'string' && STOP.test(part));
  return parts.map((part, k): Part<Spec> => {
    const begun = (text: string): string => (k === 0 ? small(text) : text);
    if (typeof part !== 'string')
      return beginsWithMeasure(part) ? { ...part, words: begun(part.words) } : part;
    return begun(k === stop ? part.replace(STOP, ' ') : part);
  });
}
