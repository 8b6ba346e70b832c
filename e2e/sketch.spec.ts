/** Rules, Sketch: what is missing is named with its sheet; a garden that has everything gets its program, in either language. */
import { readFileSync } from 'node:fs';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { expect, expectAccessible, openSample, sheet, test } from './careful.ts';

test('what a program cannot be written without is named, with the sheet that sets it', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Sketch').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Roof board: its program');
  const missing = page.getByRole('region', { name: 'What is missing' });
  await expect(missing).toContainText('Rain tank, mm needs more than one pin, or a bus');
  await expectAccessible(page);
  await missing.getByRole('link', { name: 'Bench, Readout' }).click();
  await expect(page).toHaveURL(/bench\/readout/);
});

test('a board that has everything gets its program, in C++ and in MicroPython, as files that belong together', async ({
  page,
}) => {
  const garden = marigoldHare(Date.UTC(2026, 4, 1));
  const text = writeGardenFile({
    ...garden,
    waterLines: garden.waterLines.map((one) => ({ ...one, tankId: null })),
  });
  await page.goto('/');
  await page
    .getByLabel('Garden file')
    .setInputFiles({ name: 'dry.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await sheet(page, 'Sketch').click();
  await expect(page.getByText(/waters by itself with Roof pump/)).toBeVisible();
  const code = page.getByLabel('roof_board.ino');
  await expect(code).toContainText('P_PULSE_SOAK');
  await expect(code).toContainText('"c2"');
  await expectAccessible(page);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save all files as a zip' }).click();
  const path = await (await saved).path();
  // A zip names its files as they are.
  const names = readFileSync(path).toString('latin1');
  for (const name of ['roof_board.ino', 'engine_size.h', 'engine.h', 'board.h'])
    expect(names).toContain(`roof_board/${name}`);

  await page.getByText('MicroPython', { exact: true }).click();
  await expect(page.getByLabel('settings.py')).toContainText('CONFIG = Fields(');
  await page.getByRole('button', { name: 'main.py' }).click();
  await expect(page.getByLabel('main.py', { exact: true })).toContainText('from machine import ADC, Pin');
});
