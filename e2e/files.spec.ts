/** Files in and out: all or nothing, a sentence for everything that is wrong, and nothing lost when the tab is killed. */
import { GARDEN_VERSION } from '@plain-trowel/core/garden/document/schema';
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { byHand, clock, expect, message, openSample, plot, sheet, test } from './careful.ts';

async function exportGarden(page: Page): Promise<string> {
  await page
    .getByRole('button', { name: /Garden menu|Marigold/ })
    .first()
    .click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export garden.json' }).click();
  return readFile(await (await download).path(), 'utf8');
}

const openFile = (page: Page, name: string, content: string | Buffer) =>
  page
    .getByLabel('Garden file')
    .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });

test('an exported garden opens again as it was, and as one step to undo', async ({ page }) => {
  await openSample(page);
  const text = await exportGarden(page);
  expect(JSON.parse(text)).toMatchObject({
    format: 'plain-trowel-garden',
    version: GARDEN_VERSION,
    name: 'The Marigold Hare',
  });
  const renamed = text.replace('"Mint trough"', '"Lovage trough"');
  await openFile(page, 'edited.json', renamed);
  await expect(plot(page, /Lovage trough/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(plot(page, /Mint trough/)).toBeVisible();
});

test('a garden file opens on the first screen of another machine', async ({ page, browser, baseURL }) => {
  await openSample(page);
  const text = await exportGarden(page);
  const other = await browser.newPage({ baseURL: baseURL ?? '' });
  await other.goto('/');
  await openFile(other, 'garden.json', text);
  await other.waitForURL(/bench\/readout/);
  await expect(other.getByRole('heading', { name: 'Where do the numbers come from?' })).toBeVisible();
  await expect(other.getByRole('button', { name: /^The Marigold Hare/ })).toBeVisible();
  await other.close();
});

test('bad garden files get a sentence and the garden stays as it was', async ({ page }) => {
  await openSample(page);
  const text = await exportGarden(page);
  const cases: readonly (readonly [string, string | Buffer, RegExp])[] = [
    ['binary.json', Buffer.alloc(3_000_000, 7), /binary.json: The file is not text/],
    ['empty.json', '', /empty.json: The file is empty/],
    ['half.json', text.slice(0, 400), /half.json: The file is cut off or damaged/],
    ['other.json', '{"a":1}', /other.json: The file holds JSON, but not a garden/],
    [
      'later.json',
      text.replace(`"version": ${GARDEN_VERSION}`, '"version": 99'),
      new RegExp(`version 99; this program reads up to version ${GARDEN_VERSION}`),
    ],
  ];
  for (const [name, content, sentence] of cases) {
    await openFile(page, name, content);
    await expect(message(page, sentence)).toContainText('The garden is as it was.');
    await message(page, sentence).getByRole('button', { name: 'Close' }).click();
  }
  await expect(page.getByRole('navigation', { name: 'Plots' }).getByRole('link')).toHaveCount(4);
});

test('bad readings files get a sentence and nothing of them is kept', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Log').click();
  const T = '2026-03-01T06:30:05Z';
  const cases: readonly (readonly [string, string | Buffer, RegExp])[] = [
    ['binary.csv', Buffer.alloc(3_000_000, 0), /The file is not text/],
    ['empty.csv', '', /The file is empty/],
    ['twice.csv', `time,channel,raw,raw\n${T},channel-c2,1500,1\n`, /The column "raw" is there twice/],
  ];
  for (const [name, content, sentence] of cases) {
    await page
      .getByLabel('Readings CSV file')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(content) });
    await expect(message(page, sentence)).toContainText('Nothing was taken in.');
    await message(page, sentence).getByRole('button', { name: 'Close' }).click();
  }
  const wrongRows = [
    `${T},channel-c2,12;5`,
    `${T},channel-c2,1e309`,
    `${T},channel-zz,1500`,
    '9999-01-01T00:00:00Z,channel-c2,5',
  ];
  await page.getByLabel('Readings CSV file').setInputFiles({
    name: 'rows.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['time,channel,raw', '', ...wrongRows].join('\n')),
  });
  const dialog = page.getByRole('dialog', {
    name: /rows.csv: 4 rows cannot be taken in. Nothing was taken in/,
  });
  await expect(dialog.getByRole('row')).toHaveText([
    /Row/,
    /3.*it must be a number/,
    /4.*larger than any probe gives/,
    /5.*"channel-zz" is no probe of this garden/,
    /6.*outside 2000 to 2100/,
  ]);
  await dialog.getByRole('button', { name: 'Close' }).click();
  // Readings of March 2026 in the browser's storage: there must be none.
  const kept = await page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const open = indexedDB.open('plain-trowel');
        open.onerror = () => reject(new Error('storage'));
        open.onsuccess = () => {
          const all = open.result.transaction('blocks').objectStore('blocks').getAllKeys();
          all.onsuccess = () =>
            resolve(
              all.result.filter((key) => Array.isArray(key) && Number(key[2]) < Date.UTC(2026, 3, 1)).length,
            );
        };
      }),
  );
  expect(kept).toBe(0);
});

test('a tab killed in the middle of an import leaves nothing half there', async ({ page, context }) => {
  await openSample(page);
  await sheet(page, 'Log').click();
  const rows = Array.from(
    { length: 60_000 },
    (_, at) => `${new Date(Date.UTC(2026, 1, 1) + at * 60_000).toISOString()},channel-c2,${1500 + (at % 50)}`,
  );
  await page.getByLabel('Readings CSV file').setInputFiles({
    name: 'long.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['time,channel,raw', ...rows].join('\n')),
  });
  await expect(page.getByRole('progressbar')).toBeVisible();
  await page.close();

  const again = await context.newPage();
  await again.goto('/g/marigold-hare/season/log?plot=chilli');
  await expect(again.getByRole('region', { name: 'Events' })).toBeVisible();
  const { days, events } = await again.evaluate(
    () =>
      new Promise<{ days: number; events: number }>((resolve) => {
        const open = indexedDB.open('plain-trowel');
        open.onsuccess = () => {
          const tx = open.result.transaction(['blocks', 'events']);
          const blocks = tx.objectStore('blocks').getAllKeys();
          const told = tx.objectStore('events').getAll();
          tx.oncomplete = () =>
            resolve({
              days: blocks.result.filter((key) => Array.isArray(key) && Number(key[2]) < Date.UTC(2026, 3, 1))
                .length,
              events: told.result.filter((row: { event: { kind: string } }) => row.event.kind === 'imported')
                .length,
            });
        };
      }),
  );
  // 60 000 minutes are 42 days, the last of them begun: all of them with their event, or none.
  expect([days, events]).toEqual(events === 0 ? [0, 0] : [42, 1]);
});

test('a reference that was shown as saved is there after the tab was killed', async ({ page, context }) => {
  await openSample(page);
  await plot(page, /Strawberry/).click();
  await sheet(page, 'Calibrate').click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText(/^Now /)).toBeVisible();
  await byHand(page);
  await page.keyboard.press('c');
  await expect(message(page, /Captured, air/)).toBeVisible();
  await page.close();
  const again = await context.newPage();
  await again.goto('/g/marigold-hare/bench/calibrate?plot=strawberry');
  await expect(again.getByRole('heading', { name: 'Water to the line' })).toBeVisible();
});

test('recalibrating changes the chart of the past and leaves the stored readings alone', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Log').click();
  const rows = page.getByRole('table').last().getByRole('row');
  await page.getByText(/The readings behind the chart/).click();
  const past = async () => (await rows.nth(5).innerText()).split('\t');
  const before = await past();
  await sheet(page, 'Calibrate').click();
  // Dry is now where the probe sits, so everything read so far means less.
  await page.getByRole('button', { name: 'Calibrate again' }).click();
  await page.getByText('Your soil, dry and soaked').click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await clock(page, '×10').click();
  // Hands-free: said once that it is in place, it is taken at rest; and the run goes on.
  await page.keyboard.press('c');
  await expect(message(page, /Captured, dry soil/)).toBeVisible({ timeout: 180_000 });
  if (await page.getByRole('heading', { name: 'Dry soil', exact: true }).isVisible())
    await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Soaked soil', exact: true })).toBeVisible();
  await page.keyboard.press('c');
  await expect(page.getByText(/it still reads as in the condition before/)).toBeVisible();
  await page.getByRole('button', { name: 'Into the water jar' }).click();
  await expect(message(page, /Captured, soaked soil/)).toBeVisible({ timeout: 180_000 });
  await page.keyboard.press('f');
  await expect(message(page, /is calibrated/)).toBeVisible();
  await sheet(page, 'Log').click();
  await page.getByText(/The readings behind the chart/).click();
  const find = async () => {
    const all = await rows.allInnerTexts();
    return all
      .map((row) => row.split('\t'))
      .find((cells) => cells[0] === before[0] && cells[1] === before[1]);
  };
  await expect.poll(find).toBeTruthy();
  const after = await find();
  expect(after?.[1]).toBe(before[1]);
  expect(after?.[2]).not.toBe(before[2]);
});

test('two references that are too close are refused, and the calibration in use stays', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Calibrate').click();
  await page.getByRole('button', { name: 'Calibrate again' }).click();
  await page.getByText('Your soil, dry and soaked').click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Dry soil' })).toBeVisible();
  await byHand(page);
  await page.keyboard.press('c');
  await expect(message(page, /Captured, dry soil/)).toBeVisible();
  await page.keyboard.press('n');
  await clock(page, '×60').click();
  // The readings of the first reference are none of the second: fresh ones are needed.
  await expect(async () => {
    await page.keyboard.press('c');
    await expect(page.getByRole('alert').filter({ hasText: 'had not moved' })).toBeVisible({ timeout: 1500 });
  }).toPass({ timeout: 180_000 });
  await expect(page.getByRole('button', { name: /^Use this calibration/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Give this run up' }).click();
  await expect(page.getByRole('region', { name: 'Calibration in use' })).toContainText('Air and water');
});
