import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { seriousFaults } from './support/axe';
import { By, Key } from './support/browser';
import { accept, acceptReading, choose, madeFile, untilRead } from './support/intake';
import { journey } from './support/journey';
import { number, openBench, seenFoot } from './support/ledger';

const { server, page } = journey();

/** Jobs of a repair shop: January, then February with one job of January again. */
const HEAD = 'Job;Done on;Customer;Paid\n';
const JANUARY = `${HEAD}J-101;08/01/2024;Ahlberg;1.200,50\nJ-102;19/01/2024;Bruun;99,50\nJ-103;30/01/2024;Ahlberg;400\n`;
const FEBRUARY = `${HEAD}J-103;30/01/2024;Ahlberg;450\nJ-104;02/02/2024;Dahl;300\nJ-105;27/02/2024;Bruun;50\n`;

const Readings = z.array(
  z.object({ id: z.int(), records: z.int(), current: z.boolean(), parts: z.array(z.unknown()) }),
);

describe('a list that files are added to', () => {
  let bench = 0;
  let list = 0;
  const paid = async (): Promise<number> => {
    await openBench(page, `/benches/${bench}`);
    return number((await seenFoot(page, 'counted')).at(-1) ?? '');
  };

  it('says what a new file in its place would lose, by months', async () => {
    await choose(page, madeFile('jan.csv', JANUARY));
    expect(await untilRead(page)).toContain('3 records');
    bench = await accept(page);
    expect(await paid()).toBe(1700);
    const lists = z
      .object({ lists: z.array(z.object({ id: z.int(), name: z.string() })) })
      .parse(await (await fetch(`${server.address}/api/lists`)).json());
    list = lists.lists.find(({ name }) => name === 'jan')?.id ?? 0;
    await choose(page, madeFile('feb.csv', FEBRUARY), list);
    await untilRead(page);
    expect(await page.untilText('fewer', 'Jan 2024')).toBe(
      'By Done on fewer in Jan 2024 (1 of 3).',
    );
  });

  it('finds what it has already, whole or by a key, and adds the rest', async () => {
    await choose(page, madeFile('feb.csv', FEBRUARY), list, true);
    await untilRead(page);
    // The job of January was paid more since: as a whole record it is new.
    expect(await page.untilText('overlap', 'will be added')).toContain(
      '3 records will be added to the 3 of the list',
    );
    await page.press('Job', '[data-test=overlap]');
    expect(await page.untilText('overlap', 'already')).toContain(
      '2 records will be added to the 3 of the list, which stay as they are. 1 of the file is in the list already, 1 of them with other values than there.',
    );
    expect(await seriousFaults(page)).toEqual([]);
    await acceptReading(page);
    expect(await paid()).toBe(2050);
  });

  it('added again it has nothing new, and is not taken', async () => {
    await choose(page, madeFile('feb.csv', FEBRUARY.replace('450', '400')), list, true);
    await untilRead(page);
    await page.untilText('overlap', '0 records will be added');
    expect(await page.all('[data-test=accept]:not([disabled])')).toEqual([]);
  });

  it('lets a file out again, and brings it back', async () => {
    await page.go(`/lists/${list}`);
    expect(await page.all('[data-test=part]')).toHaveLength(2);
    await page.press('Take out', '[data-test=part]');
    await page.untilText('accepted', 'jan.csv was taken out');
    expect(await paid()).toBe(350);
    const readings = Readings.parse(
      await (await fetch(`${server.address}/api/lists/${list}/readings`)).json(),
    );
    expect(readings.map((r) => [r.records, r.current, r.parts.length])).toEqual([
      [2, true, 1],
      [5, false, 2],
      [3, false, 0],
    ]);
    await page.go(`/lists/${list}`);
    await page.press('Bring back', '[data-test=reading]');
    await page.untilText('accepted', 'is the current one');
    expect(await paid()).toBe(2050);
  });

  it('tells a column otherwise, and the bench follows', async () => {
    await page.go(`/lists/${list}`);
    const paidColumn = (await page.all('[data-test=change-column]')).at(-1);
    await paidColumn?.click();
    const name = await page.driver.findElement(By.css('form input[name=name]'));
    await name.clear();
    await name.sendKeys('Takings');
    await page.click('tell-column');
    await page.untilText('accepted', 'told so in a new reading');
    expect(await paid()).toBe(2050);
    expect(await page.text('ledger')).toContain('Takings');
    // A file that still has the old head goes on being found.
    await choose(page, madeFile('feb.csv', FEBRUARY), list);
    await untilRead(page);
    expect(await page.all('.differences')).toEqual([]);
  });

  it('begins with wishes of the list itself in the finder', async () => {
    await openBench(page, `/benches/${bench}`);
    await page.chord(Key.CONTROL, 'k');
    expect(await page.untilText('examples', 'by')).toContain('Takings by Customer');
    await page.press('Takings by Customer', '[data-test=examples]');
    await page.untilText('finder-list', 'grouped by Customer');
  });
});
