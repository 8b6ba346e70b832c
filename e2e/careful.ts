/** The page that every browser test uses: whatever goes wrong behind the screen fails the test. */
import { test as base, expect, type Page } from '@playwright/test';
import axe, { type AxeResults } from 'axe-core';

export { expect };

export const test = base.extend<{ page: Page }>({
  page: async ({ page, baseURL }, use) => {
    const wrong: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') wrong.push(`console: ${message.text()}`);
    });
    page.on('pageerror', (error) => wrong.push(`page error: ${error.message}`));
    page.on('requestfailed', (request) => {
      // Leaving a page cuts off what it was still fetching; that is no fault.
      if (request.failure()?.errorText !== 'net::ERR_ABORTED') wrong.push(`request failed: ${request.url()}`);
    });
    page.on('request', (request) => {
      const url = request.url();
      if (!url.startsWith(baseURL ?? '') && !/^(blob|data):/.test(url))
        wrong.push(`request leaves the machine: ${url}`);
    });
    page.on('response', (response) => {
      if (response.status() >= 400) wrong.push(`status ${response.status()}: ${response.url()}`);
    });
    await page.addInitScript(() => {
      addEventListener('securitypolicyviolation', (event) => {
        console.error(`policy violated: ${event.violatedDirective} ${event.blockedURI}`);
      });
      addEventListener('unhandledrejection', (event) =>
        console.error(`unhandled rejection: ${String(event.reason)}`),
      );
    });
    // A hand is slower than the disk, a test is not: it waits until what it did is kept. What must hold for the quickest hand says so in its own test.
    await page.addLocatorHandler(page.locator('main[data-saving=true]'), async () => {});
    await use(page);
    expect(wrong).toEqual([]);
  },
});

/** Waits for the sheet of the address: right after a press the one before may still stand, and then its place be kept. */
async function sheetIsThere(page: Page): Promise<void> {
  await page.waitForFunction(() => {
    const open = [
      ...document.querySelectorAll<HTMLAnchorElement>('nav[aria-label=Stations] a[aria-current=page]'),
    ];
    const heads = [...document.querySelectorAll('h1')];
    return (
      open.every((link) => link.pathname === location.pathname) &&
      heads.length > 0 &&
      heads.every((head) => head.ariaBusy !== 'true')
    );
  });
}

/** Fails on anything that axe finds wrong with the sheet as it stands. Asked for violations alone, it takes a quarter of the time. */
export async function expectAccessible(page: Page): Promise<void> {
  await sheetIsThere(page);
  await page.evaluate(axe.source);
  const { violations } = await page.evaluate<AxeResults>('axe.run({ resultTypes: ["violations"] })');
  expect(
    violations.map((one) => `${one.id}: ${one.nodes.map((node) => node.target.join(' ')).join(', ')}`),
  ).toEqual([]);
}

/** Loads the page again once what was changed is kept. */
export async function reload(page: Page): Promise<void> {
  await expect(page.locator('main[data-saving=true]')).toHaveCount(0);
  await page.reload();
}

/** Opens the sample garden with its stand-ins running. */
export async function openSample(page: Page): Promise<void> {
  await page.goto('/sample');
  await page.waitForURL(/\/bench\/readout/);
  await expect(page.getByRole('button', { name: /^Reading now/ })).toBeVisible();
}

export const sheet = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name, exact: true });

export const plot = (page: Page, name: string | RegExp) =>
  page.getByRole('navigation', { name: 'Plots' }).getByRole('link', { name });

/** Switches off that a reading is taken by itself at rest. */
export const byHand = (page: Page) => page.getByText(/^hands-free:/).click();

export const clock = (page: Page, speed: string) =>
  page.getByRole('group', { name: 'Clock' }).getByText(speed, { exact: true });

/** Fills in the shortest form there is and makes a garden of one plot. */
export async function startFromParts(
  page: Page,
  more: {
    pump?: boolean;
    plot?: string;
    probe?: string;
    kind?: string;
    alike?: number;
    stream?: string;
  } = {},
): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: /Start my own garden/ }).click();
  await page.getByLabel('Garden', { exact: true }).fill('Window sill');
  await page.getByLabel('Plot', { exact: true }).fill(more.plot ?? 'Basil pot');
  if (more.alike) await page.getByLabel('How many alike').fill(String(more.alike));
  await page.getByLabel('I have them already').check();
  await page.getByLabel('Label on the probe').fill(more.probe ?? 'B1');
  if (more.kind) await page.getByLabel('Kind of probe').selectOption(more.kind);
  if (more.stream) await page.getByLabel('Name that the board prints').fill(more.stream);
  if (more.pump) await page.getByLabel('A pump waters this plot').check();
  await page.getByRole('button', { name: 'Make the garden' }).click();
  await page.waitForURL(/\/bench\/readout/);
}

/** A message at the foot of the page; the copy that is read out to screen readers is not meant. */
export const message = (page: Page, text: RegExp) =>
  page.getByRole('listitem').filter({ has: page.getByRole('button', { name: 'Close' }), hasText: text });

export const view = (page: Page, name: string | RegExp) =>
  page.getByRole('navigation', { name: /^Views of/ }).getByRole('link', { name });
