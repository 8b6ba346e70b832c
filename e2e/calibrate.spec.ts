/** Calibrate: a series by keyboard, a run taken up again, versions side by side, the certificate, a sister's guess, and practice. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import {
  byHand,
  clock,
  expect,
  expectAccessible,
  message,
  openSample,
  plot,
  reload,
  sheet,
  test,
} from './careful.ts';

const view = (page: Page, name: string | RegExp) =>
  page.getByRole('navigation', { name: 'Views of Calibrate' }).getByRole('link', { name });

async function begin(page: Page, method: string): Promise<void> {
  await page.getByText(method, { exact: true }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
}

async function fill(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(value);
  await field.press('Enter');
}

async function saved(page: Page, press: () => Promise<void>): Promise<string> {
  const download = page.waitForEvent('download');
  await press();
  return readFile(await (await download).path(), 'utf8');
}

test('a mixing series: weighed, captured, its curve chosen and used; limits keep their raw counts', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Calibrate').click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Calibrate again' }).click();
  await expectAccessible(page);
  await begin(page, 'Mixing series');
  await expect(page.getByText('Next: fill in “Volume of the container”.')).toBeVisible();
  await fill(page, 'Volume of the container', '1000');
  await fill(page, 'Container empty', '85');
  await fill(page, 'Sample of the soil as it is', '115');
  await fill(page, 'The same sample, oven-dry', '100');
  await fill(page, 'Soil that goes into the container', '1265');
  await expect(page.getByText(/Dry soil 1.100 g, bulk density 1\.10 g\/cm³, pores 58 %/)).toBeVisible();
  await byHand(page);
  await clock(page, '×60').click();
  // Wetter and wetter, as the stand-in can be made: air, soil, poured, poured again, water. It weighs nothing, so the weights follow the readings, a little bent.
  const now = async () => {
    const label = await page.getByRole('group', { name: /^Ruler of C2/ }).getAttribute('aria-label');
    return Number(/Now ([\d\s]+) counts/.exec(label ?? '')?.[1]?.replaceAll(/\s/g, ''));
  };
  const weightAt = (counts: number) => Math.round(1350 + 332 * ((2940 - counts) / 1800) ** 1.1 + 1);
  const moves = [
    () => page.getByRole('button', { name: 'Pull the probe out' }).click(),
    () => page.getByRole('button', { name: 'Push it back in' }).click(),
    () => page.getByRole('button', { name: 'Pour 50 ml' }).click({ clickCount: 6, delay: 60 }),
    () => page.getByRole('button', { name: 'Pour 50 ml' }).click({ clickCount: 6, delay: 60 }),
    () => page.getByRole('button', { name: 'Into the water jar' }).click(),
  ];
  for (const [at, move] of moves.entries()) {
    await move();
    await page.waitForTimeout(3000);
    await page.getByLabel('Container now weighs').fill(String(weightAt(await now())));
    await page.getByLabel('Container now weighs').press('Enter');
    // It is taken once it rests, and then the run goes on by itself; what rested already is taken at once, and waits.
    await expect(page.getByRole('row', { name: /^mixed soil/ })).toHaveCount(at + 1, { timeout: 180_000 });
    if (at === 2) {
      await page.waitForTimeout(1500);
      const third = page.getByRole('heading', { name: 'Mixture 3 of 5' });
      if (await third.isVisible()) await page.getByRole('button', { name: 'Next' }).click();
      await expect(page.getByRole('heading', { name: 'Mixture 4 of 5' })).toBeVisible();
      await expect(page.getByText(/By what it weighed last, add \d+ g in place of 83 g/)).toBeVisible();
    }
  }
  await expect(page.getByText(/one over the voltage \(\d/)).toBeVisible();
  await expectAccessible(page);
  await expect(page.getByRole('region', { name: 'Mixtures so far' }).getByRole('listitem')).toHaveCount(5);
  await page.getByLabel('Who').fill('Ann');
  await page.getByRole('button', { name: /^Use this calibration/ }).click();
  await expect(message(page, /C2 is calibrated/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Calibration in use' })).toContainText('Mixing series');
  await expect(plot(page, /Chilli crate/)).toContainText('% VWC');
  await sheet(page, 'Limits').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/water below \d+\.\d % VWC/);
});

test('a run is left and taken up again; a point is repeated, left out, removed, all with one hand on the keys', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Strawberry/).click();
  await sheet(page, 'Calibrate').click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Air', exact: true })).toBeVisible();
  await byHand(page);
  const air = page.getByRole('row', { name: /^air/ });
  const captured = (times: string) =>
    // A repeat needs fresh readings: until they are there the key does nothing.
    expect(async () => {
      await page.keyboard.press('c');
      await expect(air).toContainText(times, { timeout: 1500 });
    }).toPass({ timeout: 180_000 });
  await captured('once');
  await expect(page.getByText(/These are still the readings of the capture before/)).toBeVisible();
  await clock(page, '×60').click();
  await captured('2 times');
  await captured('3 times');
  await page.keyboard.press('r');
  await expect(page.getByRole('row', { name: /^air/ })).toContainText('2 times');
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Water to the line' })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { name: 'Air', exact: true })).toBeVisible();
  await page.getByLabel('Use this point').uncheck();
  await expect(page.getByText('2 more points, and there is a curve.')).toBeVisible();
  await reload(page);
  await expect(page.getByRole('row', { name: /^air/ })).toContainText('2 times');
  await expect(page.getByLabel('Use this point')).not.toBeChecked();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Use this point')).toBeChecked();
});

test('versions: compared on the past log, used again, their table and certificate saved, a sister begun with a guess', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Calibrate').click();
  await page.getByRole('button', { name: 'Repeat a reference' }).click();
  await expect(page.getByRole('heading', { name: 'Air', exact: true })).toBeVisible();
  await byHand(page);
  // The key takes what there is: before the first readings that is nothing.
  await expect(page.getByRole('button', { name: /^Capture/ })).toBeEnabled();
  await page.waitForTimeout(1500);
  await page.keyboard.press('c');
  await expect(page.getByText(/Repeats of one condition lie .* counts apart/)).toBeVisible();
  // Refused: the captures stay, and the one that was no air is taken back with one press.
  await expect(page.getByRole('button', { name: /^Use this calibration/ })).toHaveCount(0);
  await page
    .getByRole('button', { name: /^Take .* back \(air\)/ })
    .last()
    .click();
  await expect(page.getByText(/Repeats of one condition/)).toHaveCount(0);
  await page.keyboard.press('f');
  await expect(message(page, /C2 is calibrated/)).toBeVisible();
  await view(page, /^Versions/).click();
  await expect(page.getByRole('radio', { name: /./ })).not.toHaveCount(0);
  await expect(page.getByRole('heading', { name: /What the last 3 days would have read/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /% span.*\d+ (h|min)/ })).not.toHaveCount(0);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(message(page, /reads by this version now/)).toBeVisible();
  const table = await saved(page, () =>
    page
      .getByRole('region', { name: 'Table for a board' })
      .getByRole('button', { name: 'Save as CSV' })
      .click(),
  );
  expect(table.split('\r\n')[0]).toBe('raw,tenths');
  const certificate = await saved(page, () => page.getByRole('button', { name: 'Save as JSON' }).click());
  expect(JSON.parse(certificate)).toMatchObject({
    format: 'plain-trowel-calibration',
    probe: { label: 'C2' },
    percent: '% span',
  });
  await page.getByLabel('Due again on').fill('2027-03-01');
  await page.getByLabel('Due again on').press('Tab');
  const calendar = await saved(page, () =>
    page.getByRole('button', { name: 'Reminder as iCalendar' }).click(),
  );
  expect(calendar).toContain('DTSTART;VALUE=DATE:20270301');
  await page.getByRole('button', { name: 'Show the paper' }).click();
  await expect(page.getByRole('img', { name: 'Calibration of C2, page 1 of 1' })).toBeVisible();
  await page.getByLabel('To', { exact: true }).selectOption({ label: 'L1' });
  await page.getByRole('button', { name: 'Copy as a guess' }).click();
  await expect(message(page, /L1 reads by a guess now/)).toBeVisible();
  await plot(page, /Lemon/).click();
  await sheet(page, 'Limits').click();
  await expect(page.getByText('A starting guess')).toBeVisible();
  await sheet(page, 'Log').click();
  await expect(page.getByRole('region', { name: 'Calibrations due again' })).toContainText('2027-03-01');
  await expect(page.getByRole('region', { name: 'Calibrations due again' })).toContainText(
    'guessed from a similar probe',
  );
});

test('practice: done wrong every mistake is told with its price, done right there is none', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Calibrate').click();
  await view(page, /^Practice/).click();
  await expectAccessible(page);
  await byHand(page);
  await page.getByText('×5', { exact: true }).click();
  await page.getByText('5 V', { exact: true }).click();
  await page.getByText('past the line', { exact: true }).click();
  await page.waitForTimeout(300);
  await page.keyboard.press('d');
  await page.getByText('air', { exact: true }).click();
  await page.keyboard.press('w');
  await page.keyboard.press('j');
  const verdict = page.getByRole('region', { name: 'Verdict' });
  for (const words of ['too early', 'dry and wet exchanged', 'wet connector', 'another supply'])
    await expect(verdict).toContainText(words);
  await expect(verdict).toContainText(/ml too (much|little)|too (dry|wet)/);
  await expectAccessible(page);
  await page.keyboard.press('r');
  await expect(verdict).toHaveCount(0);
  // Hands-free it is taken at rest, and not where it still reads as before.
  await byHand(page);
  await page.getByText('air', { exact: true }).click();
  await page.keyboard.press('d');
  await expect(page.getByRole('button', { name: /take it as dry ?\(/ })).toBeVisible({ timeout: 180_000 });
  await page.keyboard.press('w');
  await expect(page.getByText(/it still reads as in the condition before/)).toBeVisible();
  await page.getByText('jar', { exact: true }).click();
  await expect(page.getByRole('button', { name: /take it as wet ?\(/ })).toBeVisible({ timeout: 180_000 });
  await page.keyboard.press('j');
  await expect(verdict).toContainText('No mistake: this calibration can be trusted.');
});
