/** The other schools of calibrating, each walked as a newcomer would: by feel, against a meter, by weighing the pot, a factory curve, a drain test. */
import type { Locator, Page } from '@playwright/test';
import {
  byHand,
  clock,
  expect,
  expectAccessible,
  message,
  openSample,
  plot,
  sheet,
  test,
} from './careful.ts';

async function begin(page: Page, method: string): Promise<void> {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Calibrate').click();
  await clock(page, '×60').click();
  await page.getByRole('button', { name: 'Calibrate again' }).click();
  await page.getByText(method, { exact: true }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
}

/** Makes the stand-in's probe read something else and waits until it has got there. */
async function move(page: Page, button: string, times = 1): Promise<void> {
  const press = page.getByRole('button', { name: button });
  if (times > 1 || button.startsWith('Pour')) await press.click({ clickCount: times, delay: 40 });
  else
    // The sheet may shift under the pointer while a reading settles; a hand would press again.
    await expect(async () => {
      if (await press.isVisible()) await press.click({ timeout: 2000 });
      await expect(press).toHaveCount(0, { timeout: 1500 });
    }).toPass({ timeout: 180_000 });
  await page.waitForTimeout(4000);
}

async function fill(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(value);
  await field.press('Enter');
}

/** Presses until the reading is taken: while it settles the sheet may shift under the pointer, and a hand would press again. */
async function capture(page: Page, taken: Locator): Promise<void> {
  await expect(async () => {
    if (!(await taken.isVisible())) await page.getByRole('button', { name: /^Capture/ }).click();
    await expect(taken).toBeVisible({ timeout: 8000 });
  }).toPass({ timeout: 180_000 });
}

const use = async (page: Page) => {
  await page.getByRole('button', { name: /^Use this calibration/ }).click();
  await expect(message(page, /C2 is calibrated/)).toBeVisible();
};

test('by feel: what a finger found becomes the plot’s bands', async ({ page }) => {
  await begin(page, 'Bands by feel');
  const feel = async (what: string) => {
    await page.getByText(what, { exact: true }).last().click();
    await page.getByRole('button', { name: /^Capture/ }).click();
    await expect(message(page, /Captured, felt by hand/).last()).toBeVisible();
  };
  await move(page, 'Pull the probe out');
  await feel('dry');
  await move(page, 'Push it back in');
  await feel('right');
  await move(page, 'Into the water jar');
  await feel('flooded');
  await expectAccessible(page);
  await use(page);
  await expect(page.getByRole('region', { name: 'Calibration in use' })).toContainText('Bands by feel');
  await sheet(page, 'Limits').click();
  await page.getByText('Where one word gives way to the next').click();
  // Cut half way between what felt dry and what felt right, so no longer the 20 % of the guess.
  await expect(page.getByLabel('low up to')).not.toHaveValue('35.0');
});

test('against a dial: five pairs say little yet, and it is said; what curve they give has its ±', async ({
  page,
}) => {
  await begin(page, 'Against a reference meter');
  const pair = async (dial: string, count: number) => {
    await page.getByLabel('The meter shows', { exact: true }).last().fill(dial);
    await capture(page, page.getByText(`${count} captured`));
  };
  await page.getByLabel('The meter shows', { exact: true }).last().fill('400');
  await expect(page.getByText('From 0 to 100.')).toBeVisible();
  await move(page, 'Pull the probe out');
  await pair('1', 1);
  await move(page, 'Push it back in');
  await pair('6', 2);
  await expect(page.getByText(/2 pairs so far; from five on/)).toBeVisible();
  await move(page, 'Pour 50 ml', 4);
  await pair('7', 3);
  await move(page, 'Pour 50 ml', 5);
  await pair('7.5', 4);
  await move(page, 'Into the water jar');
  await pair('10', 5);
  await expect(
    page.getByText(/^5 pairs say little yet: .* the numbers fall as the meter rises/),
  ).toBeVisible();
  await expectAccessible(page);
  // How far the pot has dried meanwhile decides whether its ± is so wide that a reason is asked for.
  const reason = page.getByLabel('Reason, to use it all the same');
  if ((await reason.count()) > 0) await reason.fill('a first look');
  await use(page);
});

test('pot weighing: says what is still unknown, takes the best kind of percent that the weights carry', async ({
  page,
}) => {
  await begin(page, 'Pot weighing');
  await fill(page, 'Pot, saucer, stake and probe', '400');
  const weigh = async (grams: string, count: number) => {
    // Hands-free: typed and in place, it is taken once it rests.
    await page.getByLabel('Whole pot now weighs').fill(grams);
    await page.getByLabel('Whole pot now weighs').press('Enter');
    await expect(page.getByText(`${count} captured`)).toBeVisible({ timeout: 180_000 });
  };
  await move(page, 'Into the water jar');
  await weigh('4975', 1);
  await expect(
    page.getByText(/^Next: give the dry soil, or the soaked and the driest weight\./),
  ).toBeVisible();
  await fill(page, 'Dry soil in it, if known', '3000');
  await fill(page, 'Volume of the soil, if known', '3750');
  // 4975 − 400 − 3000 g of water in 3750 ml.
  await expect(page.getByRole('row', { name: /^pot on the scale/ })).toContainText('42.0');
  await move(page, 'Push it back in');
  await move(page, 'Pour 50 ml', 4);
  // As far between water and air in the weights as it is in its numbers, however far it has drained by now.
  const ruler = await page.getByRole('group', { name: /^Ruler of C2/ }).getAttribute('aria-label');
  const counts = Number(/Now ([\d\s]+) counts/.exec(ruler ?? '')?.[1]?.replaceAll(/\s/g, ''));
  await weigh(String(Math.round(4975 - ((counts - 1144) / (2934 - 1144)) * (4975 - 3700))), 2);
  await move(page, 'Pull the probe out');
  await weigh('3700', 3);
  await weigh('3705', 4);
  await use(page);
  await expect(plot(page, /Chilli crate/)).toContainText('% VWC');
});

test('a factory curve is checked against one soil, and says that it agrees or by how much it is off', async ({
  page,
}) => {
  await begin(page, 'Factory curve, checked');
  await fill(page, 'Raw value at the low end of its sheet', '2934');
  await fill(page, 'Raw value at the high end of its sheet', '1144');
  await page.getByLabel('Water content by weighing').fill('48');
  await page.getByRole('button', { name: /^Capture/ }).click();
  await expect(page.getByText(/Agrees within its ±|Off by/)).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByLabel('Water content by weighing').fill('20');
  await page.getByRole('button', { name: /^Capture/ }).click();
  await expect(page.getByText(/Off by .* more than chance\. The curve is moved/)).toBeVisible();
  await use(page);
});

test('a drain test looks at the log first, and gives available percent', async ({ page }) => {
  await begin(page, 'Drain test');
  await expect(page.getByText(/shows no soaking|still moving by|a day later it stood at/)).toBeVisible();
  await byHand(page);
  await move(page, 'Into the water jar');
  await page
    .getByRole('button', { name: /^Capture/ })
    .first()
    .click();
  await expect(message(page, /Captured, drained a day/)).toBeVisible();
  await page.getByRole('button', { name: 'Next' }).click();
  await move(page, 'Lift it out of the jar');
  await page
    .getByRole('button', { name: /^Capture/ })
    .first()
    .click();
  await expect(message(page, /Captured, plant hangs its leaves/)).toBeVisible();
  await use(page);
  await expect(plot(page, /Chilli crate/)).toContainText('% available');
  await page.getByRole('button', { name: /^Reference drained, .* Show the working/ }).click();
  await expect(page.getByRole('complementary', { name: 'Working' })).toContainText(
    'Reference: drained a day',
  );
});

test('raw cut-offs: two numbers, typed or captured, are limits, lamp and program, and no percent stands anywhere', async ({
  page,
}) => {
  await begin(page, 'Raw cut-offs');
  const number = page.getByLabel('Or the number itself');
  const take = async (counts: string, said: RegExp) => {
    await number.fill(counts);
    await page.getByRole('button', { name: /^Use \d/ }).click();
    await expect(message(page, said)).toBeVisible();
  };
  await take('2400', /Taken, time to water: 2\s400/);
  await page.getByRole('button', { name: 'Next' }).click();
  await take('2400', /Taken, watered enough: 2\s400/);
  // One number for both is no pair of limits.
  await expect(
    page.getByRole('alert').filter({ hasText: 'The two numbers are 0 counts apart' }),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Back/ }).click();
  await take('3000', /Taken, time to water: 3\s000/);
  await expect(
    page.getByRole('heading', { name: /^Water above 3\s000 counts, enough at 2\s400 counts/ }),
  ).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Use this calibration/ }).click();
  await expect(message(page, /C2 goes by its raw counts now/)).toBeVisible();
  await expect(plot(page, /Chilli crate/)).toContainText(/\d\scounts|\d counts/);
  await sheet(page, 'Limits').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    /water above 3\s000 counts, stop at 2\s400 counts/,
  );
  const start = page.getByRole('textbox', { name: 'Start limit' });
  await start.fill('2200');
  await expect(page.getByText(/The start limit lies below the stop limit/)).toBeVisible();
  await start.fill('9000');
  await expect(page.getByText(/must lie between .* counts, for the two cut-offs were taken/)).toBeVisible();
  await start.fill('2900');
  await start.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/water above 2\s900 counts/);
  await page.getByRole('link', { name: /^Program/ }).click();
  await expect(page.getByText(/^When Chilli crate rises above 2\s900 counts/)).toBeVisible();
  await expect(page.getByRole('main')).not.toContainText(/% (span|VWC)/);
});
