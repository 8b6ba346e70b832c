import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { openInbox, type Inbox } from '@plain-trowel/standins/inbox/inbox';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import type { APIRequestContext, Page } from '@playwright/test';
import { expect, expectAccessible, openSample, test } from './careful.ts';

const toToday = async (page: Page) => {
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await expect(page).toHaveURL(/season\/today/);
};

test('Today opens with what needs a person, each with its way there; what was seen stands back', async ({
  page,
}) => {
  await openSample(page);
  await toToday(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('3 things need you. Mint trough first.');
  const needs = page.getByRole('list', { name: 'What needs you' });
  await expect(needs.getByRole('listitem')).toHaveCount(3);
  // An alert about a plot of which nothing is known by now says what it was.
  await expect(needs).toContainText('Mint trough: was too dry when it was last known');
  await expectAccessible(page);
  const fault = needs.getByRole('listitem').filter({ hasText: 'cannot be trusted' });
  await fault.getByRole('button', { name: 'Seen' }).click();
  await expect(needs.getByRole('listitem').last()).toContainText('cannot be trusted');
  await expect(needs.getByRole('listitem').last()).toContainText('seen');
  await needs.getByRole('link', { name: /^Calibrate ?: Strawberry gutter/ }).click();
  await expect(page).toHaveURL(/bench\/calibrate\?plot=strawberry/);
});

test('Today says how each plot stands, when it is watered next, and names the next step of the building', async ({
  page,
}) => {
  await openSample(page);
  await toToday(page);
  const plots = page.getByRole('list', { name: 'Plots now' });
  const chilli = plots.getByRole('listitem').filter({ hasText: 'Chilli crate' });
  await expect(chilli.getByRole('img')).toHaveAccessibleName(
    /Chilli crate: \d+\.\d % span, limits 45\.0 % span and/,
  );
  await expect(chilli).toContainText(/next.*at 45\.0 % span/);
  await expect(plots.getByRole('img', { name: 'Mint trough: no reading to trust' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Building it' })).toContainText(
    'Calibrate the probe in Strawberry gutter.',
  );
  await chilli.getByRole('button', { name: /Water it, stop it/ }).click();
  await expect(chilli.getByRole('region', { name: 'Orders by hand' })).toBeVisible();
});

test('a line is skipped for a while and says until when; all lines are, and water by themselves again', async ({
  page,
}) => {
  await openSample(page);
  await toToday(page);
  const plots = page.getByRole('list', { name: 'Plots now' });
  const chilli = plots.getByRole('listitem').filter({ hasText: 'Chilli crate' });
  await chilli.getByRole('button', { name: /Water it, stop it, skip it/ }).click();
  const skip = chilli.getByRole('region', { name: 'Skip watering' });
  await skip.getByRole('combobox', { name: 'Skip watering' }).selectOption('for three days');
  await skip.getByRole('button', { name: /^Skip until/ }).click();
  await expect(skip.getByRole('status')).toContainText(/Roof pump is skipped until \w{3} \d/);
  await expect(chilli).toContainText(/next.*skipped until/);
  await expectAccessible(page);
  await skip.getByRole('button', { name: 'Water by itself again' }).click();
  await expect(chilli).toContainText(/next.*at 45\.0 % span/);
  const all = page.getByRole('region', { name: 'Holiday' });
  await all.getByRole('button', { name: 'Skip all watering …' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Alerts go on as ever');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: /^Skip .* until/ }).click();
  await expect(page.getByText(/Watering is skipped: Roof pump until/)).toBeVisible();
  await all.getByRole('button', { name: 'Water by itself again' }).click();
  await expect(page.getByText(/Watering is skipped/)).toHaveCount(0);
});

test('on a phone the main answer stands in the first screen, within reach of one hand', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openSample(page);
  await page.goto('/g/marigold-hare/season/today');
  const head = page.getByRole('heading', { level: 1 });
  await expect(head).toContainText('need you');
  await expect(head).toBeInViewport();
  const first = page.getByRole('link', { name: /Look at the probe/ });
  await expect(first).toBeInViewport();
  expect((await first.boundingBox())?.height).toBeGreaterThanOrEqual(44);
  // The open station is in sight, though it is the last one.
  await expect(page.getByRole('link', { name: 'Today', exact: true })).toBeInViewport();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expectAccessible(page);
});

test('with nothing connected it does not say that nothing is wrong', async ({ page }) => {
  await openSample(page);
  await page
    .getByRole('button', { name: /Disconnect|Stop the stand-ins|Close/ })
    .first()
    .click();
  await toToday(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Nothing is connected: nobody knows how the plots stand.',
  );
});

test.describe('alerts while no page is open', () => {
  test.describe.configure({ mode: 'serial' });
  let inbox: Inbox;
  test.beforeAll(async () => {
    inbox = await openInbox('of both');
  });
  test.afterAll(() => inbox.close());

  /** A garden of these tests' own, in which "too dry" is told at once. */
  function deck(): Garden {
    const garden = marigoldHare(Date.now());
    return {
      ...garden,
      id: 'deck',
      name: 'The After Deck',
      alerts: garden.alerts.map((rule) =>
        rule.kind === 'dry' ? { ...rule, holdOffS: 2, quiet: null } : rule,
      ),
    };
  }
  let seq = 0;
  const boot = Math.floor(Date.now() / 1000) % 1_000_000_000;
  async function published(request: APIRequestContext): Promise<(counts: number) => Promise<void>> {
    const standing = (await (await request.get('/api/gardens/deck')).json()) as {
      published: { revision: number } | null;
    };
    const after = standing.published ? `&after=${standing.published.revision}` : '';
    const put = await request.put(`/api/gardens/deck/document?by=a+test${after}`, {
      headers: { 'content-type': 'application/json' },
      data: writeGardenFile(deck()),
    });
    expect(put.ok()).toBe(true);
    const made = await request.post('/api/gardens/deck/boards/roof/key', { data: {} });
    const { key } = (await made.json()) as { key: string };
    return async (counts) => {
      seq += 1;
      const said = await request.post('/api/readings', {
        headers: { authorization: `Bearer ${key}` },
        data: { board: 'roof', boot, seq, upS: 60, readings: [{ n: 'c2', v: counts, agoS: 0 }] },
      });
      expect(said.ok()).toBe(true);
    };
  }

  test('come by mail within ten seconds of threshold and hold-off, and stand in the log of a browser that opens later', async ({
    page,
    request,
  }) => {
    const report = await published(request);
    await page.goto('/');
    await page
      .getByRole('region', { name: 'At this gateway' })
      .getByRole('listitem')
      .filter({ hasText: 'After Deck' })
      .getByRole('button', { name: 'Open it here' })
      .click();
    await page.waitForURL(/\/g\/deck/);
    await page.goto('/g/deck/rules/limits?plot=chilli&view=alerts');
    const away = page.getByRole('region', { name: 'While no page is open' });
    await expect(away).toContainText('has no way to tell you');
    await away.getByRole('button', { name: /Set up … ?: Mail/ }).click();
    await away.getByLabel('Mail server').fill('127.0.0.1');
    await away.getByLabel('Port').fill(String(inbox.smtpPort));
    await away.getByLabel('Encrypted').selectOption('none');
    await away.getByLabel('From').fill('trowel@deck.invalid');
    await away.getByLabel('To', { exact: true }).fill('nobody');
    await away.getByRole('button', { name: 'Keep' }).click();
    await expect(away.getByRole('alert')).toContainText('is no mail address');
    await away.getByLabel('To', { exact: true }).fill('hare@deck.invalid');
    await expectAccessible(page);
    await away.getByRole('button', { name: 'Keep' }).click();
    await expect(away).toContainText('To hare@deck.invalid');
    await away.getByRole('button', { name: 'Send a test by mail' }).click();
    await expect(away.getByRole('status')).toContainText('The test was taken by the mail server');
    expect(inbox.mails.map(({ subject }) => subject)).toContain('Plain Trowel: a test');
    // From here on nobody looks.
    await page.goto('about:blank');
    await report(2000);
    const drySinceMs = Date.now();
    await report(2800);
    const dry = () =>
      inbox.mails.find(({ subject }) => subject.startsWith('The After Deck: Chilli crate: too dry'));
    await expect.poll(() => dry() !== undefined, { intervals: [100], timeout: 180_000 }).toBe(true);
    expect(Date.now() - drySinceMs).toBeLessThan(2000 + 10_000);
    expect(dry()?.text).toContain('now dry, 7.5 % span');
    await page.goto('/g/deck/season/today');
    await expect(page.getByRole('list', { name: 'What needs you' })).toContainText('Chilli crate: too dry');
    await page.goto('/g/deck/season/log?plot=chilli');
    await expect(page.getByRole('row', { name: /Alert.*Chilli crate/ })).toHaveCount(1);
  });

  test('are seen once for all browsers, and told by each only as the gateway tells them', async ({
    page,
    browser,
    request,
  }) => {
    const report = await published(request);
    await report(2800);
    const open = async (at: Page) => {
      await at.goto('/');
      await at
        .getByRole('region', { name: 'At this gateway' })
        .getByRole('listitem')
        .filter({ hasText: 'After Deck' })
        .getByRole('button', { name: 'Open it here' })
        .click();
      await at.waitForURL(/\/g\/deck/);
      await at.goto('/g/deck/season/today');
    };
    const other = await (await browser.newContext()).newPage();
    await Promise.all([open(page), open(other)]);
    const needs = (at: Page) =>
      at
        .getByRole('list', { name: 'What needs you' })
        .getByRole('listitem')
        .filter({ hasText: 'Chilli crate: too dry' });
    await expect(needs(page)).toBeVisible();
    await expect(needs(other)).toBeVisible();
    await needs(other).getByRole('button', { name: 'Seen' }).click();
    await expect(needs(page)).toContainText('seen');
    await other.context().close();
  });
});
