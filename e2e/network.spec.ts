import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { programName } from '@plain-trowel/core/sketch/python';
import { heldBy } from '@plain-trowel/core/sketch/settable';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';

/** A garden of its own, so that no other test's boards report to it. */
async function openNetwork(page: Page) {
  await page.goto('/sample');
  await page.waitForURL(/\/g\//);
  await page.goto('/g/marigold-hare/bench/readout?plot=chilli');
  await page.getByRole('button', { name: 'Change source' }).click();
  await page.getByText('Boards over the network', { exact: true }).click();
}

/** Another start of the board for every try. */
let boot = Math.floor(Date.now() / 1000) % 1_000_000_000;

const report = (request: APIRequestContext, key: string, seq: number, c2: number, agoS = 1) =>
  request.post('/api/readings', {
    headers: { authorization: `Bearer ${key}` },
    data: { board: 'roof', boot, seq, upS: 60, readings: [{ n: 'c2', v: c2, agoS }] },
  });

/** No board has a key yet, whatever was tried here before. */
test.beforeEach(async ({ request }) => {
  for (const board of ['roof', 'stern'])
    await request.delete(`/api/gardens/marigold-hare/boards/${board}/key`);
  boot += 1;
});

// They share one garden of one gateway, so they take turns.
test.describe.configure({ mode: 'serial' });

test('a board that was given a key reports, and is watched, recorded and heard again after a reload', async ({
  page,
  request,
}) => {
  await openNetwork(page);
  const row = page.getByRole('row', { name: /Roof board/ });
  await expect(row).toContainText('none: it cannot report');
  await expect(page.getByRole('button', { name: 'Listen to these boards' })).toBeDisabled();
  await row.getByRole('button', { name: 'Make a key' }).click();
  const key = await page.getByRole('cell', { name: /^[0-9a-f]{40}$/ }).innerText();
  await expect(page.getByRole('region', { name: 'New key of Roof board' })).toContainText('/api/readings');
  // While nobody looks: longer ago than is watched, and minutes ago.
  expect((await report(request, key, 1, 2311, 700)).status()).toBe(200);
  expect((await report(request, key, 2, 2222, 150)).status()).toBe(200);
  await page.getByRole('button', { name: 'Done, hide it' }).click();
  await expect(page.getByText(key)).toHaveCount(0);
  await expect(page.getByText(/Latest report: Roof board/)).toBeVisible();
  await page.getByRole('button', { name: 'Listen to these boards' }).click();
  await expect(page.getByText('2 222', { exact: true }).first()).toBeVisible();
  // From the wire to the screen in less than a second.
  const sentMs = Date.now();
  await report(request, key, 3, 2188);
  await expect(page.getByText('2 188', { exact: true }).first()).toBeVisible();
  expect(Date.now() - sentMs).toBeLessThan(1000);
  // What is on this browser's disk is noted at the gateway.
  await expect
    .poll(async () => {
      const standing = await request.get('/api/gardens/marigold-hare');
      return ((await standing.json()) as { mailbox: { fetchedTo: number } }).mailbox.fetchedTo;
    })
    .toBeGreaterThanOrEqual(3);
  await page.reload();
  await expect(page.getByText('Boards over the network').first()).toBeVisible();
  // What came while nobody looked stands in the log as well.
  await page.goto('/g/marigold-hare/season/log?plot=chilli');
  await page.getByText(/readings behind the chart/).click();
  await expect(page.getByRole('cell', { name: '2 311', exact: true }).first()).toBeVisible();
});

test('a key that was cancelled no longer reports', async ({ page, request }) => {
  await openNetwork(page);
  const row = page.getByRole('row', { name: /Roof board/ });
  const shown = page.getByRole('cell', { name: /^[0-9a-f]{40}$/ });
  await row.getByRole('button', { name: 'Make a key' }).click();
  const first = await shown.innerText();
  await page.getByRole('button', { name: 'Copy the key' }).click();
  await expect(
    page.getByRole('button', { name: 'Copied' }).or(page.getByText(/does not allow it/)),
  ).toBeVisible();
  // While the new one is on its way, the one that no longer works is not there to be copied.
  let answer = () => {};
  const held = new Promise<void>((resolve) => {
    answer = resolve;
  });
  await page.route('**/boards/roof/key', async (route) => {
    await held;
    await route.continue();
  });
  await row.getByRole('button', { name: 'New key …' }).click();
  await row.getByRole('button', { name: 'Replace its key' }).click();
  await expect(row.getByRole('button', { name: 'New key …' })).toBeVisible();
  await expect(shown).toHaveCount(0);
  answer();
  const key = await shown.innerText();
  expect(key).not.toBe(first);
  await expect(page.getByRole('button', { name: 'Copy the key' })).toBeVisible();
  await page.unroute('**/boards/roof/key');
  expect((await report(request, first, 9, 2000)).status()).toBe(401);
  expect((await report(request, key, 10, 2000)).status()).toBe(200);
  await row.getByRole('button', { name: 'Cancel …' }).click();
  await expect(page.getByText(/stops working at once/)).toBeVisible();
  await row.getByRole('button', { name: 'Keep it' }).click();
  expect((await report(request, key, 11, 2000)).status()).toBe(200);
  await row.getByRole('button', { name: 'Cancel …' }).click();
  await row.getByRole('button', { name: 'Cancel its key' }).click();
  await expect(row).toContainText('none: it cannot report');
  expect((await report(request, key, 12, 2000)).status()).toBe(401);
});

test('a garden is published, and told to be in another state once it has changed; another browser takes it over', async ({
  page,
  request,
  browser,
}) => {
  await openNetwork(page);
  const publish = page.getByRole('button', { name: /^Publish/ });
  await publish.click();
  await expect(page.getByText(/Published as it is now \(revision \d/)).toBeVisible();
  await page.getByRole('button', { name: 'Change this plot' }).click();
  const name = page.getByRole('dialog').getByRole('textbox').first();
  await name.fill('Chilli crate at the rail');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Save|Change|Done|Keep/ })
    .first()
    .click();
  await expect(page.getByText(/Published in another state \(revision \d/)).toBeVisible();
  await page.getByRole('button', { name: 'What differs' }).click();
  await expect(
    page.getByRole('row', { name: /name/ }).filter({ hasText: 'Chilli crate at the rail' }),
  ).toContainText('Chilli crate');
  await page.getByRole('button', { name: 'Take the published one here' }).click();
  await expect(page.getByText(/Published as it is now \(revision \d/)).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Chilli crate, probe');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Chilli crate at the rail');
  await page.getByRole('button', { name: 'Publish it as it is here' }).click();
  await expect(page.getByText(/Published as it is now \(revision \d/)).toBeVisible();

  // Another browser finds it, with what its boards have said meanwhile.
  const key = (
    (await (await request.post('/api/gardens/marigold-hare/boards/roof/key', { data: {} })).json()) as {
      key: string;
    }
  ).key;
  await report(request, key, 1, 2311, 700);
  await report(request, key, 2, 2188);
  const other = await (await browser.newContext()).newPage();
  await other.goto('/');
  await other
    .getByRole('region', { name: 'At this gateway' })
    .getByRole('listitem')
    .filter({ hasText: 'Marigold' })
    .getByRole('button', { name: 'Open it here' })
    .click();
  await other.waitForURL(/\/g\/marigold-hare/);
  await other.goto('/g/marigold-hare/bench/readout?plot=chilli');
  await expect(other.getByRole('heading', { level: 1 })).toContainText('Chilli crate at the rail');
  await expect(other.getByText('Boards over the network').first()).toBeVisible();
  await other.goto('/g/marigold-hare/season/log?plot=chilli');
  await other.getByText(/readings behind the chart/).click();
  await expect(other.getByRole('cell', { name: '2 311', exact: true }).first()).toBeVisible();
  await other.context().close();
});

test('limits that differ are left at the gateway, and the board takes them with its next report', async ({
  page,
  request,
}) => {
  const planned = planBoard(marigoldHare(Date.now()), 'roof');
  if (!planned.ok) throw new Error('the sample has no program');
  const { plan } = planned;
  const program = programName(plan);
  await openNetwork(page);
  const row = page.getByRole('row', { name: /Roof board/ });
  await row.getByRole('button', { name: 'Make a key' }).click();
  const key = await page.getByRole('cell', { name: /^[0-9a-f]{40}$/ }).innerText();
  await page.getByRole('button', { name: 'Done, hide it' }).click();
  await page.getByRole('button', { name: 'Listen to these boards' }).click();
  /** As the board tells what it runs and holds. @param start of its first line */
  const limits = (start: string) =>
    heldBy(plan).map(({ id, garden }) => {
      const at = plan.lines.findIndex((line) => line.id === id);
      const own = { ...garden, ...(at === 0 && garden.start !== undefined ? { start } : {}) };
      const pairs = Object.entries(own).map((pair) => pair.join(' '));
      return `# limits ${at < 0 ? id : at + 1} ${pairs.join(' ')}`;
    });
  let seq = 0;
  const says = async (lines: readonly string[], revision?: number) => {
    seq += 1;
    const answer = await request.post('/api/readings', {
      headers: { authorization: `Bearer ${key}` },
      data: {
        board: 'roof',
        boot,
        seq,
        upS: 60,
        program,
        ...(revision === undefined ? {} : { revision }),
        readings: [{ n: 'c2', v: 2000, agoS: 1 }],
        said: lines.map((text) => ({ text, agoS: 0 })),
      },
    });
    return (await answer.json()) as { revision: number; settings: readonly string[] };
  };
  const greeting = [`# version 1 ${program} engine 1`, `# lines ${plan.lines.map(({ id }) => id).join(' ')}`];
  await says([...greeting, ...limits('12.0')]);
  await page.getByRole('link', { name: 'Sketch', exact: true }).click();
  const onBoard = page.getByRole('region', { name: 'On the board now' });
  await expect(onBoard).toContainText('runs this program with other setting');
  await onBoard.getByRole('button', { name: 'Send the garden’s to the board' }).click();
  await expect(onBoard).toContainText('Left at the gateway');
  const { revision, settings } = await says([]);
  expect(settings.at(-1)).toBe('save');
  expect(settings[0]).toMatch(/^set 1 start \d/);
  const start = /start (\S+)/.exec(settings[0] ?? '')?.[1] ?? '';
  await says([`# settings ${revision} taken`, ...limits(start)], revision);
  await expect(onBoard).toContainText('runs this very program, with these limits');
});

test('a page that comes from no gateway says so', async ({ page }) => {
  await page.route('**/api/**', (route) => route.fulfill({ status: 404, body: 'nothing' }));
  await openNetwork(page);
  await expect(page.getByRole('alert')).toContainText('This page does not come from a gateway');
});
