/** Dose: a pump measured with a jug, its line, the trial that does not go with the others, and the flow taken over by the rules. */
import type { Page } from '@playwright/test';
import { expect, expectAccessible, message, openSample, plot, sheet, test } from './careful.ts';

async function keep(page: Page, run: string, volume: string): Promise<void> {
  const rows = page.getByRole('group', { name: 'Trials' }).getByRole('row');
  const before = await rows.count();
  await page.getByLabel('It ran for').fill(run);
  await page.getByLabel('Into the jug came').fill(volume);
  await page.getByLabel('Into the jug came').press('Enter');
  await expect(rows).toHaveCount(Math.max(2, before + 1));
}

test('a pump is measured, an odd trial is pointed at and left out, and the rules reckon with what was measured', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
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
  await page.getByRole('button', { name: 'Reckon with the measured flow' }).click();
  await expect(message(page, /is reckoned with 10\.\d+ ml\/s now/)).toBeVisible();
  await page.reload();
  await expect(page.getByText('They are the same.')).toBeVisible();
  await sheet(page, 'Limits').click();
  await expect(page.getByLabel('Pump gives')).toHaveValue(/^10\.\d$/);
});

test('a plot that nothing waters says so, and what would change it', async ({ page }) => {
  await openSample(page);
  await plot(page, /Mint/).click();
  await sheet(page, 'Dose').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mint trough: no water line');
});
