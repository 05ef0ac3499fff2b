import { citedIn, citeMark, type CitedFigure } from '../check/cited';
import type { Bench } from './document';
import { inReport, setReport } from './reportEdits';

/** Where words of a report stand: under its title, or as the note of a tally. */
export type WordsPlace = { readonly at: 'intro' } | { readonly at: 'note'; readonly tally: string };

export const wordsAt = (doc: Bench, place: WordsPlace): string =>
  place.at === 'intro'
    ? doc.report.intro
    : (doc.tray.find(({ id }) => id === place.tally)?.note ?? '');

const MOST = 20_000;

/** Words in the place of others. Figures that stand in no words any more are forgotten. */
export function setWords(doc: Bench, place: WordsPlace, words: string): Bench {
  const cut = words.slice(0, MOST);
  const next =
    place.at === 'intro'
      ? setReport(doc, { intro: cut })
      : inReport(doc, place.tally, { note: cut });
  const used = new Set([next.report.intro, ...next.tray.map(({ note }) => note)].flatMap(citedIn));
  return { ...next, cited: next.cited.filter(({ id }) => used.has(id)) };
}

/** Puts a figure at the end of words. */
export function citeFigure(doc: Bench, figure: Omit<CitedFigure, 'id'>, place: WordsPlace): Bench {
  const taken = new Set(doc.cited.map(({ id }) => id));
  let n = 1;
  while (taken.has(`c${n}`)) n++;
  const id = `c${n}`;
  const words = wordsAt(doc, place);
  const parted = words === '' || /\s$/.test(words) ? words : `${words} `;
  return setWords(
    { ...doc, cited: [...doc.cited, { ...figure, id }] },
    place,
    parted + citeMark(id),
  );
}

/** The words were read with these figures in them. */
export const readCited = (doc: Bench, now: ReadonlyMap<string, string>): Bench => ({
  ...doc,
  cited: doc.cited.map((cited) => ({ ...cited, read: now.get(cited.id) ?? cited.read })),
});
