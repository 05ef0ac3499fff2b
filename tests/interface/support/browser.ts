import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  Builder,
  By,
  Key,
  logging,
  until,
  type WebDriver,
  type WebElement,
} from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
];

/** A page in Chromium, with the acts that journeys are made of; opened before it is used. */
export class Page {
  readonly downloads = mkdtempSync(path.join(tmpdir(), 'tally-loft-files-'));
  address = '';
  #driver: WebDriver | null = null;

  get driver(): WebDriver {
    if (!this.#driver) throw new Error('The page is not open yet.');
    return this.#driver;
  }

  static async open(address: string): Promise<Page> {
    const page = new Page();
    await page.open(address);
    return page;
  }

  async open(address: string, width = 1280, height = 800): Promise<void> {
    this.address = address;
    const options = new chrome.Options();
    options.setChromeBinaryPath('/usr/bin/chromium');
    options.addArguments(...FLAGS, `--window-size=${width},${height}`);
    const heard = new logging.Preferences();
    heard.setLevel(logging.Type.BROWSER, logging.Level.WARNING);
    options.setLoggingPrefs(heard);
    this.#driver = await new Builder()
      .forBrowser('chrome')
      .setChromeOptions(options)
      .setChromeService(new chrome.ServiceBuilder('/usr/bin/chromedriver'))
      .build();
    await this.command('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: 1,
      mobile: false,
    });
    await this.command('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: this.downloads,
    });
    await this.command('Browser.grantPermissions', {
      origin: address,
      permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    });
  }

  /** Fetches scripts once, so that a browser that cannot have one of them is known before its first test. @returns those that did not come */
  async fetchAll(paths: readonly string[]): Promise<string[]> {
    await this.go('/keys');
    await this.driver.manage().setTimeouts({ script: 60_000 });
    return this.driver.executeAsyncScript<string[]>(
      `const done = arguments[1];
       const late = (path) => new Promise((r) => setTimeout(() => r(path), 20_000));
       const had = (path) => fetch(path).then((r) => r.arrayBuffer()).then(() => null, () => path);
       Promise.all(arguments[0].map((path) => Promise.race([had(path), late(path)]))).then((found) => done(found.filter(Boolean)));`,
      paths,
    );
  }

  async command(name: string, parameters: Record<string, unknown>): Promise<void> {
    if (!(this.driver instanceof chrome.Driver)) throw new Error('Not driving Chromium.');
    await this.driver.sendDevToolsCommand(name, parameters);
  }

  /** The page as it is printed: a PDF. */
  async print(): Promise<Buffer> {
    if (!(this.driver instanceof chrome.Driver)) throw new Error('Not driving Chromium.');
    const reply: unknown = await this.driver.sendAndGetDevToolsCommand('Page.printToPDF', {
      preferCSSPageSize: true,
      printBackground: true,
    });
    const data =
      typeof reply === 'object' && reply !== null && 'data' in reply ? String(reply.data) : '';
    return Buffer.from(data, 'base64');
  }

  /** Where the page is and what went wrong in it since this was last asked: faults of its code, requests that failed. */
  async troubles(): Promise<string> {
    const entries = await this.driver.manage().logs().get(logging.Type.BROWSER);
    const text = await this.run<string>('return document.body.innerText');
    const absent = await this.run<string[]>(
      `const came = new Set(performance.getEntriesByType('resource').map((e) => e.name));
       return [...document.querySelectorAll('link[rel=modulepreload], link[rel=stylesheet]')].map((l) => l.href).filter((h) => !came.has(h))`,
    );
    return [
      `At ${await this.driver.getCurrentUrl()} the browser said:`,
      ...entries.map(({ message }) => `  ${message}`),
      ...absent.map((name) => `  never came: ${name}`),
      'and the page showed:',
      ...text
        .split('\n')
        .filter(Boolean)
        .slice(0, 60)
        .map((line) => `  ${line}`),
    ].join('\n');
  }

  /** Ends the browser; another can be opened. */
  async quit(): Promise<void> {
    await this.#driver?.quit();
    this.#driver = null;
  }

  async close(): Promise<void> {
    await this.quit();
    rmSync(this.downloads, { recursive: true, force: true });
  }

  go(where: string): Promise<void> {
    return this.driver.get(this.address + where);
  }

  /** The first element of a `data-test` name, once it is there. */
  async find(test: string): Promise<WebElement> {
    return this.driver.wait(
      until.elementLocated(By.css(`[data-test="${test}"]`)),
      15_000,
      `no ${test}`,
    );
  }

  all(css: string): Promise<WebElement[]> {
    return this.driver.findElements(By.css(css));
  }

  async click(test: string): Promise<void> {
    await (await this.find(test)).click();
  }

  /** Clicks the button, link or choice with exactly this text. */
  async press(text: string, within = 'body'): Promise<void> {
    // Found and clicked in one go: what was drawn anew in between is looked for again.
    await this.until(`a button “${text}”`, async () => {
      // One question to the browser for all of them: a page has hundreds.
      const named = await this.run<WebElement[]>(
        `return [...document.querySelectorAll(arguments[0])].filter((e) => e.innerText.trim() === arguments[1])`,
        ['button', 'a', '[role=option]', '[role=menuitem]', 'label[data-part=item]']
          .map((kind) => `${within} ${kind}`)
          .join(),
        text,
      );
      for (const element of named) {
        if (!(await element.isDisplayed())) continue;
        await element.click();
        return true;
      }
      return null;
    });
  }

  async text(test: string): Promise<string> {
    const text = await (await this.find(test)).getAttribute('textContent');
    return (text ?? '').replace(/\s+/g, ' ').trim();
  }

  async type(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  async chord(modifier: string, key: string): Promise<void> {
    await this.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform();
  }

  /** Chooses one of the values that a field opens. */
  async choose(test: string, value: string): Promise<void> {
    await this.click(test);
    let at = '';
    await this.until(`${value} among the choices of ${test}`, async () => {
      const [option] = await this.all(`[role=option][data-value="${value}"]`);
      if (!option) return false;
      // It is put in its place once it has opened: where it was a moment ago, a press would miss it.
      const before = at;
      at = JSON.stringify(await option.getRect());
      if (at !== before) return false;
      await option.click();
      return true;
    });
    // What was chosen stands in the field once its list has gone.
    await this.until(
      'the list gone',
      async () => (await this.all(`[role=option][data-value="${value}"]`)).length === 0,
    );
  }

  /** Waits until `look` gives something, trying again when the page is redrawn under it. */
  async until<T>(
    what: string,
    look: () => Promise<T | null | undefined | false>,
    ms = 15_000,
  ): Promise<T> {
    const end = Date.now() + ms;
    let last: unknown = null;
    for (;;) {
      try {
        const value = await look();
        if (value) return value;
      } catch (error) {
        last = error;
      }
      if (Date.now() > end)
        throw new Error(`Waited in vain for ${what}.${last ? ` Last: ${String(last)}` : ''}`);
      await this.driver.sleep(60);
    }
  }

  /** Waits until an element's text holds this. */
  untilText(test: string, part: string | RegExp): Promise<string> {
    return this.untilTextFor(test, part, 15_000);
  }

  untilTextFor(test: string, part: string | RegExp, ms: number): Promise<string> {
    const look = async (): Promise<string | null> => {
      const text = await this.text(test);
      return (typeof part === 'string' ? text.includes(part) : part.test(text)) ? text : null;
    };
    return this.until(`“${part}” in ${test}`, look, ms);
  }

  run<T>(script: string, ...args: unknown[]): Promise<T> {
    return this.driver.executeScript<T>(script, ...args);
  }

  /** What the clipboard holds as a type. */
  clipboard(type: string): Promise<string> {
    return this.driver.executeAsyncScript<string>(
      `const done = arguments[arguments.length - 1];
       navigator.clipboard.read().then(async ([item]) => done(await (await item.getType(arguments[0])).text())).catch((e) => done('failed: ' + e));`,
      type,
    );
  }

  /** The next file that the browser saved, as text. */
  async saved(ending: string): Promise<string> {
    return (await this.savedBytes(ending)).toString('utf8').replace(/^\ufeff/, '');
  }

  /** The next file that the browser saved. */
  async savedBytes(ending: string): Promise<Buffer> {
    const name = await this.until(`a file ${ending}`, async () =>
      readdirSync(this.downloads).find((file) => file.endsWith(ending)),
    );
    const file = path.join(this.downloads, name);
    const bytes = readFileSync(file);
    rmSync(file);
    return bytes;
  }
}

export { By, Key };
