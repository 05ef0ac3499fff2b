import { Key } from '../../tests/interface/support/browser';
import type { Hand } from './hand';

/** One way of doing a task: from a list's bench as the demo has it to where its answer stands. */
export type Way = (hand: Hand) => Promise<void>;

export interface Task {
  readonly number: number;
  readonly words: string;
  /** The acts that a good tool needs at the most. */
  readonly most: number;
  /** The list whose bench it begins at. */
  readonly list: string;
  readonly pointer: Way;
  readonly keys: Way;
}

/** Asks for a tally in words, from the questions: by a click, or by the key `t`. */
export async function ask(
  hand: Hand,
  by: 'pointer' | 'keys',
  words: string,
  offered: string,
): Promise<void> {
  if (by === 'pointer') await hand.click('[data-test=new-tally]');
  else await hand.key('t');
  await hand.see('What do you want to know?');
  await hand.type(words);
  await hand.offered(offered);
  if (by === 'pointer') await hand.click('[data-test^=question-]');
  else await hand.key(Key.ENTER);
}

/** Does what the finder offers first for these words. */
export async function find(
  hand: Hand,
  by: 'pointer' | 'keys',
  words: string,
  offered: string,
): Promise<void> {
  if (by === 'pointer') await hand.click('.bar-button.finder');
  else await hand.key(Key.CONTROL, 'k');
  await hand.page.find('finder');
  await hand.type(words);
  await hand.offered(offered);
  if (by === 'pointer') await hand.click('[role=option][aria-selected=true]');
  else await hand.key(Key.ENTER);
}

/** A task that is asked for in words and answered by what comes. */
export const asked = (
  facts: Pick<Task, 'number' | 'words' | 'most' | 'list'>,
  words: string,
  offered: string,
  answer: (hand: Hand) => Promise<void>,
): Task => {
  const by =
    (way: 'pointer' | 'keys'): Way =>
    async (hand) => {
      await ask(hand, way, words, offered);
      await answer(hand);
    };
  return { ...facts, pointer: by('pointer'), keys: by('keys') };
};
