import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { seriousFaults } from './support/axe';
import { By } from './support/browser';
import { accept, choose, madeFile, untilRead } from './support/intake';
import { journey } from './support/journey';
import { openBench, seenHeads, seenLines } from './support/ledger';
import { beginTally, figuresCame, openTray, seenTable } from './support/tally';

const { server, page } = journey();

/** What a bakery's rounds brought, and what was planned for them. */
const DELIVERIES = `Day,Round,Loaves
2025-03-01,North,12
2025-03-01,Quay,7
2025-03-02,quay ,5
2025-03-03,Hill,9
2025-03-04,Mill,
2025-03-05,Ferry,9
2025-04-01,North,20
`;
const PLAN = `Round,Planned loaves
North,31
Quay,18
Hill,9
Harbour,5
Mill,2
`;

describe('two lists side by side', () => {
  let bench = 0;

  it('begin by the column that both have, each group with its difference and how they stand', async () => {
    await choose(page, madeFile('plan.csv', PLAN));
    await untilRead(page);
    await accept(page);
    await choose(page, madeFile('deliveries.csv', DELIVERIES));
    await untilRead(page);
    bench = await accept(page);
    await openTray(page, `/benches/${bench}`);
    await beginTally(page, 'reconciliation');
    expect(await page.text('sentence')).toContain('against sum of Planned loaves of plan');
    const rows = (await seenTable(page)).map((cells) => [cells[0], ...cells.slice(1, 4), cells[5]]);
    expect(rows.filter(([name]) => name !== 'All' && name !== 'Round')).toEqual([
      ['Ferry', '9', '0', '9', 'not in plan'],
      ['Quay', '12', '18', '−6', 'under'],
      ['Harbour', '0', '5', '−5', 'not in deliveries'],
      ['Mill', 'none', '2', '−2', 'no value in deliveries'],
      ['North', '32', '31', '1', 'over'],
      ['Hill', '9', '9', '0', 'agrees'],
    ]);
  });

  it('open to the records of both lists', async () => {
    const [cell] = await page.driver.findElements(
      By.xpath('//table[@data-test="figures-main"]//tr[td[normalize-space()="Quay"]]/td[2]'),
    );
    await cell.click();
    expect(await page.untilText('elsewhere-records', 'In plan')).toContain('18');
    expect(await page.text('behind')).toContain('2 records');
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('stand the same when the bench is opened again, and by HTTP', async () => {
    await page.untilText('save-state', /^saved$/);
    await openTray(page, `/benches/${bench}`);
    await figuresCame(page);
    const lists = z
      .object({ lists: z.array(z.object({ id: z.int(), name: z.string() })) })
      .parse(await (await fetch(`${server.address}/api/lists`)).json());
    const idOf = (name: string): number => lists.lists.find((l) => l.name === name)?.id ?? 0;
    const answer = await fetch(`${server.address}/api/lists/${idOf('deliveries')}/ask`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', accept: 'text/csv' },
      body: JSON.stringify({
        lists: { plan: { list: idOf('plan') } },
        tallies: [
          {
            kind: 'reconciliation',
            with: 'plan',
            measure: { kind: 'sum', column: 'Loaves' },
            by: [{ column: 'Round', loose: true }],
            against: { kind: 'sum', column: 'Planned loaves' },
          },
        ],
      }),
    });
    const text = await answer.text();
    expect(text).toContain('Quay,12,18,-6,');
    expect(text).toContain('Harbour,0,5,-5,');
  });
});

describe('a figure of each record within its group', () => {
  it('is made in the panel, and stands in the ledger', async () => {
    await choose(page, madeFile('rounds.csv', DELIVERIES));
    await untilRead(page);
    await openBench(page, `/benches/${await accept(page)}`);
    await page.click('new-made');
    await page.press('within groups');
    await page.choose('window-figure', 'running');
    await page.choose('window-by-0', 'round');
    await page.untilText('made-outcome', '7 records');
    await page.click('made-keep');
    await page.untilText('notice', 'Make the column Loaves, running');
    await page.until('its head', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('Loaves, running')),
    );
    const at = (await seenHeads(page)).findIndex((head) => head.startsWith('Loaves, running'));
    expect((await seenLines(page)).map(({ cells }) => cells[at])).toEqual([
      '12',
      '7',
      '12',
      '9',
      '0',
      '9',
      '32',
    ]);
  });
});
