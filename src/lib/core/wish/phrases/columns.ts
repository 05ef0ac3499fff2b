import type { Phrase, Phrases } from '../phrase';
import { PERIOD_WORDS } from '../words/periodWords';
import { sameWord } from '../tokens';
import { SMALL_WORDS } from '../words/smallWords';

/** A column by its whole name; else by a word of it, or the beginning of one, of four letters or more. */
export const columnPhrases: Phrases = ({ tokens, words }, at) => {
  const whole = words.columnAt(tokens, at);
  const out: Phrase[] = [];
  if (whole) {
    const part = { is: 'column', column: whole.column } as const;
    out.push({
      from: at,
      to: at + whole.length,
      part,
      fit: words.namesRecords(whole.column) ? 1 : 5,
    });
  }
  const { word, quoted } = tokens[at];
  if (quoted || PERIOD_WORDS.has(word) || SMALL_WORDS.has(word)) return out;
  const [first, ...more] = words.columnsWith(word);
  if (first !== undefined && whole?.length !== 1)
    out.push({
      from: at,
      to: at + 1,
      part: { is: 'column', column: first },
      fit: 3,
      ...(more.length > 0 &&
        more.length < 4 && {
          others: more.map((column) => ({ is: 'column', column }) as const),
        }),
    });
  return out;
};

/** The records of a list by what it is called, and by the words for any: `how many sailings`. */
export const recordPhrases: Phrases = ({ tokens, listName, words }, at) => {
  const names = listName
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  const isName = (k: number): boolean =>
    tokens[k] !== undefined &&
    !tokens[k].quoted &&
    [...names, 'records', 'rows'].some((name) => sameWord(name, tokens[k].word));
  if (!isName(at)) return [];
  let to = at + 1;
  while (isName(to)) to++;
  // “how many jobs” counts records, whatever a column of theirs is called.
  const counts = ['many', 'of', 'number', 'per', 'each', 'the'].includes(tokens[at - 1]?.word);
  // A list may be called as a column of it is: then that column is meant, unless it names the records.
  const column = words.columnAt(tokens, at);
  const own = column === null || words.namesRecords(column.column);
  return [{ from: at, to, part: { is: 'records' }, fit: own && (at === 0 || counts) ? 6 : 2 }];
};
