/** Dose: a pump measured with a jug, its line, the trial that does not go with the others, and the flow taken over by the rules. */
import type { Page } from '@playwright/test';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { expect, expectAccessible, message, openSample, plot, sheet, test, view, reload } from './careful.ts';

async function keep(page: Page, run: string, volume: string): Promise<void> {
  const rows = page.getByRole('group', { name: 'Trials' }).getByRole('row');
  const before = await rows.count();
  await page.getByLabel('It ran for').fill(run);
  await page.getByLabel('Into the jug came').fill(volume);
  await page.getByLabel('Into the jug came').press('Enter');
  await expect(rows).toHaveCount(Math.max(2, before + 1));
}

/** The sample with a pump that nobody has measured yet. */
async function openUnmeasured(page: Page): Promise<void> {
  const garden = marigoldHare(Date.UTC(2026, 4, 1, 12));
  const text = writeGardenFile({
    ...garden,
    waterLines: garden.waterLines.map((line) => ({ ...line, trials: [] })),
  });
  await page.goto('/');
  await page
    .getByLabel('Garden file')
    .setInputFiles({ name: 'new.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await plot(page, /Chilli crate/).click();
  await page.getByRole('button', { name: 'Start the stand-in boards' }).first().click();
}

test('a pump is measured, an odd trial is pointed at and left out, and the rules reckon with what was measured', async ({
  page,
}) => {
  await openUnmeasured(page);
  await sheet(page, 'Dose').click();
  await expect(page.getByText(/Run the pump into a jug for a few seconds/)).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('It ran for').fill('0');
  await expect(page.getByText('From 0.1 to 3600 s.')).toBeVisible();
  await page.getByLabel('It ran for').fill('8');
  await page.getByRole('button', { name: 'Run the stand-in pump' }).click();
  await expect(page.getByText(/The stand-in’s jug shows \d+ ml/)).toBeVisible();
  await keep(page, '5', '30');
  await keep(page, '10', '80');
  await expect(page.getByText(/2 of 3 different run times measured/)).toBeVisible();
  await keep(page, '20', '180');
  await expect(page.getByText('100 ml take')).toContainText('12.0 s');
  await keep(page, '5', '31');
  await keep(page, '20', '181');
  await keep(page, '12', '55');
  await expect(page.getByText('Look again.')).toBeVisible();
  await page.getByLabel('Use the trial of 12 s').uncheck();
  await expect(page.getByText('Look again.')).toHaveCount(0);
  await expectAccessible(page);
  await page.getByLabel('For a volume of').fill('200');
  await page.getByLabel('For a volume of').press('Enter');
  await expect(page.getByRole('button', { name: /^Run time for 200 ml: 2[12]\.\d s/ })).toBeVisible();
  await page.getByRole('button', { name: 'Use the measured flow' }).click();
  await expect(message(page, /is reckoned with 10\.\d+ ml\/s and [12]\.\d s for the tube now/)).toBeVisible();
  await reload(page);
  await expect(page.getByText('They are the same.')).toBeVisible();
  await sheet(page, 'Limits').click();
  await view(page, 'Program').click();
  await expect(page.getByLabel('Pump gives')).toHaveValue(/^10\.\d\d$/);
  await expect(page.getByLabel('Tube fills in')).toHaveValue(/^[12]\.\d$/);
});

test('another tube is a reason to measure again, and says so', async ({ page }) => {
  await openUnmeasured(page);
  await sheet(page, 'Dose').click();
  const tube = page.getByLabel('tube, m');
  await tube.fill('2');
  await tube.press('Enter');
  await expect(tube).toHaveValue('2');
  await keep(page, '5', '30');
  await expect(page.getByText('Measure again.')).toHaveCount(0);
  await tube.fill('5');
  await tube.press('Enter');
  await expect(page.getByText(/The tube was 2\.0 m and is 5\.0 m/)).toBeVisible();
});

test('outlets are measured into cups, and each plot’s share of a dose is shown', async ({ page }) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Dose').click();
  await view(page, 'Outlets').click();
  // 31, 34 and 24 ml of 117 go to the crate: 91 of 120 ml.
  await expect(
    page.getByText(/Of 120 ml, Chilli crate gets 91 ml and Lemon barrel gets 29 ml/),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /^Evenness: 82 % of the mean/ })).toBeVisible();
  await page.getByLabel('Barrel, drip ring: in its cup, ml').fill('5');
  await page.getByLabel('Barrel, drip ring: in its cup, ml').press('Enter');
  await expect(page.getByText(/poor\. Look at its height/)).toBeVisible();
  await page.getByRole('button', { name: 'Add an outlet' }).click();
  await expect(page.getByRole('row')).toHaveCount(6);
  await page.getByText('A sprinkler: catch cups').click();
  await page.getByLabel('In the cups, ml').fill('30 40; 50 x');
  await expect(page.getByText(/Type numbers with spaces between/)).toBeVisible();
  await page.getByLabel('In the cups, ml').fill('30 40; 50 40');
  await page.getByLabel('In the cups, ml').press('Enter');
  // 40 ml on 40 cm² in ten minutes: one millimetre a minute.
  await expect(page.getByRole('button', { name: /^Rain of the sprinkler: 1\.00 mm\/min/ })).toBeVisible();
  await expectAccessible(page);
});

test('a reservoir shows what is left and for how long; levels that contradict each other are refused', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Dose').click();
  await view(page, 'Reservoir').click();
  await expect(page.getByRole('button', { name: /^Water in the reservoir: 2[5-8]\.\d l/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Days left/ })).toBeVisible();
  await page.getByLabel('Sensor reads', { exact: true }).fill('300');
  await page.getByLabel('Water at that reading').fill('20');
  await expect(page.getByText(/the sensor would turn back/)).toBeVisible();
  await page.getByLabel('Water at that reading').fill('6');
  await page.getByRole('button', { name: 'Keep this level' }).click();
  await expect(page.getByRole('row')).toHaveCount(5);
  await page.getByLabel('Minimum').fill('40');
  await expect(page.getByText(/so nothing would ever run/)).toBeVisible();
  await page.getByLabel('Minimum').press('Escape');
  await page.getByRole('button', { name: /^nearly empty/ }).click();
  await expect(page.getByText('Below its minimum: its lines do not run.')).toBeVisible({ timeout: 180_000 });
  await sheet(page, 'Limits').click();
  await expect(page.getByText('amber, slow blink: tank low')).toBeVisible();
  // An order is told beforehand that nothing would come of it.
  await expect(page.getByText('Nothing would come: the tank is below its minimum.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Give it now' })).toBeDisabled();
});

test('the water need of a plot follows its size, plant and weather', async ({ page }) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Dose').click();
  await view(page, 'Water need').click();
  // 3.5 mm · 1.15 · 0.3 m².
  await expect(page.getByRole('button', { name: /^Water need: 1 200 ml/ })).toBeVisible();
  // Three quarters of 600 ml a day reach the crate, by its cups.
  await expect(page.getByText(/more than Roof pump may give it in a day, 456 ml/)).toBeVisible();
  await expect(page.getByRole('img', { name: /the line may give 456 ml/ })).toBeVisible();
  await page.getByLabel('Weather, for the whole garden').selectOption('cool');
  await expect(page.getByRole('button', { name: /^Water need: 520 ml/ })).toBeVisible();
  await page.getByText('a pot', { exact: true }).click();
  await expect(page.getByLabel('Mouth, across')).toHaveValue('25');
  await expect(page.getByText(/more than Roof pump may give/)).toHaveCount(0);
});

test('a plot that nothing waters says so, and what would change it', async ({ page }) => {
  await openSample(page);
  await plot(page, /Mint/).click();
  await sheet(page, 'Dose').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mint trough: no water line');
});
