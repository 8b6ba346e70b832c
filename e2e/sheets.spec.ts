/** Every sheet: reachable, accessible in both widths and both tones, worked without a mouse. */
import type { Page } from '@playwright/test';
import { expect, expectAccessible, openSample, plot, sheet, startFromParts, test, view } from './careful.ts';

/** Sheets and the views that stand beside the one that opens first. */
const STATIONS = {
  Plan: { Parts: ['List', 'Power', 'Catalogue'], Wiring: ['Table', 'Cables', 'Build', 'Sums', 'Paper'] },
  Bench: { Readout: [], Calibrate: [], Dose: [] },
  'Rules and Season': { Limits: [], Log: [] },
} as const;

for (const [station, sheets] of Object.entries(STATIONS))
  test(`the sheets of ${station} are accessible by day, by night and on a phone`, async ({ page }) => {
    test.slow();
    await openSample(page);
    for (const [name, views] of Object.entries<readonly string[]>(sheets)) {
      await sheet(page, name).click();
      await test.step(name, () => expectAccessibleAnyhow(page));
      for (const other of views) {
        await view(page, new RegExp(`^${other}$`)).click();
        await test.step(`${name}, ${other}`, () => expectAccessibleAnyhow(page));
      }
    }
  });

/** By day, by night and on a phone, where nothing may stand out at the side. */
async function expectAccessibleAnyhow(page: Page): Promise<void> {
  const tone = (now: string) => page.evaluate((name) => (document.documentElement.dataset.sheet = name), now);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await tone('day');
  await page.waitForTimeout(400);
  await expectAccessible(page);
  await tone('night');
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectAccessible(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await page.setViewportSize({ width: 1280, height: 800 });
}

test('the first screen, the form and the dialogs are accessible', async ({ page }) => {
  await page.goto('/');
  await expectAccessible(page);
  await page.goto('/new');
  await page.getByLabel('I have them already').check();
  await page.getByLabel('A pump waters this plot').check();
  await page.getByRole('button', { name: 'Make the garden' }).click();
  await expect(page.getByText('Give the plot a name, such as Chilli crate.')).toBeVisible();
  await expectAccessible(page);
  await openSample(page);
  await page.getByRole('button', { name: 'Add a plot' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectAccessible(page);
});

test('“?” lists the keys of the open sheet, and they work', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('?');
  const dialog = page.getByRole('dialog', { name: 'Keys of this sheet' });
  await expect(dialog.getByText('Hold the picture still, and let it run again')).toBeVisible();
  await expect(dialog.getByText(/Pour 50 ml/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('h');
  await expect(page.getByRole('button', { name: 'Resume' })).toBeVisible();
  await page.keyboard.press('h');
  await expect(page.getByRole('button', { name: 'Hold' })).toBeVisible();
});

test('a number laid on the slip shows formula, inputs and source, and stays in step', async ({ page }) => {
  await openSample(page);
  await page.getByRole('button', { name: /^Moisture now/ }).focus();
  await page.keyboard.press('Enter');
  const slip = page.getByRole('complementary', { name: 'Working' });
  await expect(slip.getByRole('heading', { name: 'Moisture now' })).toBeVisible();
  await expect(
    slip.getByText(/\(dry reference − reading now\) ÷ \(dry reference − wet reference\)/),
  ).toBeVisible();
  await expect(slip.getByText('Straight line through or nearest')).toBeVisible();
  await page.keyboard.press('p');
  const before = await slip
    .getByText(/ % span$/)
    .first()
    .textContent();
  await expect(slip.getByText(/ % span$/).first()).not.toHaveText(before ?? '');
});

test('a flag is moved by keys and by drag; one burst is one step to undo', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Limits').click();
  const start = page.getByRole('slider', { name: 'Start limit' });
  await expect(start).toHaveAttribute('aria-valuenow', '45');
  await start.focus();
  for (let at = 0; at < 5; at += 1) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(start).toHaveAttribute('aria-valuenow', '46.5');
  await page.waitForTimeout(900);
  await page.keyboard.press('Control+z');
  await expect(start).toHaveAttribute('aria-valuenow', '45');
  await page.keyboard.press('Control+y');
  await expect(start).toHaveAttribute('aria-valuenow', '46.5');

  const stop = page.getByRole('slider', { name: 'Stop limit' });
  const box = await stop.boundingBox();
  if (!box) throw new Error('no flag');
  const y = box.y + 12;
  await page.mouse.move(box.x + 30, y);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, y, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await stop.getAttribute('aria-valuenow'))).toBeGreaterThan(64);
  // The start flag cannot be pushed past the stop flag.
  await start.focus();
  await page.keyboard.press('End');
  const [startAt, stopAt] = [
    await start.getAttribute('aria-valuenow'),
    await stop.getAttribute('aria-valuenow'),
  ];
  expect(Number(startAt)).toBeLessThan(Number(stopAt));
});

test('contradicting limits cannot be kept, and the field says which two disagree', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Limits').click();
  const start = page.getByRole('group', { name: 'start limit' }).getByRole('textbox').first();
  await start.fill('70');
  await start.press('Enter');
  await expect(page.getByText('The start limit lies above the stop limit.')).toBeVisible();
  await start.press('Escape');
  await expect(start).toHaveValue('45.0');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('water below 45.0 % span');
});

test('a plot is added, changed and removed, and each can be undone', async ({ page }) => {
  await openSample(page);
  await page.getByRole('button', { name: 'Add a plot' }).click();
  await page.getByLabel('Plot', { exact: true }).fill('Thyme pot');
  await page.getByLabel('Label on the probe').fill('T1');
  await page.getByRole('button', { name: 'Add the plot' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Thyme pot');
  await page.getByRole('button', { name: 'Change this plot' }).click();
  await page.getByLabel('Plot', { exact: true }).fill('Sage pot');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(plot(page, /Sage pot/)).toBeVisible();
  await page.getByRole('button', { name: 'Change this plot' }).click();
  await page.getByRole('button', { name: 'Remove this plot' }).click();
  await expect(plot(page, /Sage pot/)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(plot(page, /Sage pot/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(plot(page, /pot/)).toHaveCount(0);
});

test('another supply voltage voids the calibration, and the sheet says so', async ({ page }) => {
  await openSample(page);
  await page.getByRole('button', { name: 'Change this plot' }).click();
  await page.getByLabel('Voltage that feeds the probe').fill('5');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await sheet(page, 'Calibrate').click();
  await expect(
    page.getByRole('alert').filter({ hasText: 'It is void, and no percent is shown' }),
  ).toBeVisible();
  // What it means for the water is said on every sheet of the plot.
  for (const name of ['Calibrate', 'Dose', 'Limits', 'Log', 'Readout']) {
    await sheet(page, name).click();
    await expect(
      page.getByRole('alert').filter({ hasText: 'Roof pump starts nothing until then' }),
    ).toBeVisible();
  }
  await expect(plot(page, /Chilli crate/)).toContainText('unknown: calibration void');
});

test('the garden is renamed from its menu', async ({ page }) => {
  await openSample(page);
  await page.getByRole('button', { name: /The Marigold Hare/ }).click();
  await page.getByRole('menuitem', { name: 'Rename the garden' }).click();
  await page.getByLabel('Name', { exact: true }).fill('The Tansy Hare');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep the name' }).click();
  await expect(page.getByRole('button', { name: /The Tansy Hare/ })).toBeVisible();
});

test('a removed garden comes back with Undo', async ({ page }) => {
  await startFromParts(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'Remove Window sill' }).click();
  await expect(page.getByRole('region', { name: 'Your gardens' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: /Window sill/ })).toBeVisible();
});

test('an address that leads nowhere says so', async ({ page }) => {
  await page.goto('/somewhere');
  await expect(page.getByText('There is no sheet at this address')).toBeVisible();
  await page.goto('/g/garden-none/bench/readout');
  await expect(page.getByText('This garden is not here')).toBeVisible();
});

test('a plot tapped while a sheet is still on its way leads to that sheet', async ({ page }) => {
  await openSample(page);
  let arrive = () => {};
  const held = new Promise<void>((resolve) => (arrive = resolve));
  await page.route(/LimitsSheet.*\.js/, async (route) => {
    await held;
    await route.continue();
  });
  await sheet(page, 'Limits').click();
  // The page is not without a head meanwhile.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Laying out the sheet …');
  await plot(page, /Chilli crate/).click();
  await expect(page).toHaveURL(/rules\/limits\?plot=chilli/);
  arrive();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Chilli crate');
  await expect(page.getByRole('link', { name: 'start limit', exact: true })).toBeVisible();
});
