import { Key, type Page } from '../../tests/interface/support/browser';

/**
 * An analyst at the page, whose acts are counted: a click, a drag, a key (or several pressed together)
 * and one run of typing are one act each. Looking costs nothing.
 */
export class Hand {
  acts = 0;

  constructor(readonly page: Page) {}

  /** Clicks the first element of a selector that can be seen, whose words begin so. */
  async click(css: string, words = ''): Promise<void> {
    this.acts++;
    await this.page.until(`“${words}” of ${css}`, async () => {
      const found = await this.page.run<number>(
        `return [...document.querySelectorAll(arguments[0])].findIndex((e) => e.offsetParent && (e.innerText || e.getAttribute('aria-label') || '').replace(/\\s+/g, ' ').trim().startsWith(arguments[1]))`,
        css,
        words,
      );
      if (found < 0) return false;
      await (await this.page.all(css))[found].click();
      return true;
    });
  }

  /** A key, or several pressed together. */
  async key(...keys: string[]): Promise<void> {
    this.acts++;
    const [first, second] = keys;
    if (second === undefined) await this.page.type(first);
    else await this.page.chord(first, second);
  }

  /** A key pressed so many times: each is an act. */
  async keys(key: string, times: number): Promise<void> {
    for (let k = 0; k < times; k++) await this.key(key);
  }

  /** Goes on with Tab until the focus is on such an element: each is an act. */
  async tabTo(css: string, words = '', back = false): Promise<void> {
    for (let k = 0; k < 120; k++) {
      if (
        await this.page.run<boolean>(
          `const at = document.activeElement; return at !== null && at.matches(arguments[0]) && at.innerText.trim().startsWith(arguments[1])`,
          css,
          words,
        )
      )
        return;
      if (back) await this.key(Key.SHIFT, Key.TAB);
      else await this.key(Key.TAB);
    }
    throw new Error(`No Tab leads to ${css}.`);
  }

  /** What leads to where a task begins. */
  async uncounted(work: () => Promise<void>): Promise<void> {
    const before = this.acts;
    await work();
    this.acts = before;
  }

  /** One run of typing. */
  async type(text: string): Promise<void> {
    this.acts++;
    await this.page.type(text);
  }

  /** Chooses of a list that the browser opens: a click on it, and one on the choice. */
  async choose(test: string, words: string): Promise<void> {
    await this.page.find(test);
    const value = await this.page.run<string>(
      `return [...document.querySelector('[data-test="' + arguments[0] + '"]').options].find((o) => o.text.startsWith(arguments[1])).value`,
      test,
      words,
    );
    await this.page.choose(test, value);
    this.acts += 2;
  }

  /** Drags the middle of an element so many pixels to the right. */
  async drag(css: string, right: number): Promise<void> {
    this.acts++;
    const [element] = await this.page.all(css);
    await this.page.driver
      .actions()
      .move({ origin: element })
      .press()
      .move({ origin: element, x: right, y: 0 })
      .release()
      .perform();
  }

  /** Waits until a part of the page holds these words. */
  async see(words: string | RegExp, within = 'body'): Promise<void> {
    await this.page.until(`“${String(words)}” in ${within}`, async () => {
      const text = await this.page.run<string>(
        `return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText).join(' ').replace(/\\s+/g, ' ')`,
        within,
      );
      return typeof words === 'string' ? text.includes(words) : words.test(text);
    });
  }

  /** Waits until the finder or the questions offer this first. */
  async offered(words: string): Promise<void> {
    await this.page.until(`“${words}” offered`, async () =>
      (
        await this.page.run<string>(
          `return document.querySelector('[role=option][aria-selected=true], [data-test^=question-]')?.innerText ?? ''`,
        )
      ).includes(words),
    );
  }
}
