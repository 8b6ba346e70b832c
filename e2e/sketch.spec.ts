/** Rules, Sketch: what is missing is named with its sheet; a garden that has everything gets its program, in either language. */
import { readFileSync } from 'node:fs';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, openSample, sheet, test } from './careful.ts';
import { boardOnPort } from './pyPort.ts';

test('what a program cannot be written without is named, with the sheet that sets it', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Sketch').click();
  await page.getByLabel('Board', { exact: true }).selectOption('Stern board');
  const missing = page.getByRole('region', { name: 'What is missing' });
  await expect(page.getByText(/switches Galley light/).first()).toBeVisible();
  await page.getByText('MicroPython', { exact: true }).click();
  await expect(missing).toContainText('Stern board is too small a board for MicroPython');
  await expectAccessible(page);
  await missing.getByRole('link', { name: 'Plan, Parts' }).click();
  await expect(page).toHaveURL(/plan\/parts/);
});

test('a limit is shown where it stands in the board’s program, in either language', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Limits').click();
  // The plots beside it lead to the sheet that is open.
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText('its program');
  await page.getByRole('link', { name: /Chilli crate/ }).click();
  await page.getByRole('link', { name: 'start limit', exact: true }).click();
  await expect(page).toHaveURL(/rules\/sketch.*field=start_tenths/);
  await expect(page.locator('mark')).toHaveText(/start_tenths=450,/);
  await page.getByText('C++', { exact: true }).click();
  await expect(page.locator('mark')).toHaveText(/450, {2}\/\/ start_tenths/);
  await page.locator('mark').getByRole('button').click();
  await expect(page.getByRole('complementary')).toContainText('start limit');
});

test('the very program of the sample’s roof board runs in the page, waters the made-up pot, and obeys', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Sketch').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Roof board: its program');
  const here = page.getByRole('region', { name: 'Run it here' });
  await here.getByRole('button', { name: 'Run this very sketch here' }).click();
  await expect(page.getByRole('region', { name: 'On the board now' })).toContainText(
    'The board runs this very program',
  );
  await expect(page.getByRole('banner')).toContainText('Roof board, its own program in this page');
  await here.getByText('×10', { exact: true }).click();
  const board = page.getByRole('region', { name: 'The board’s console' });
  await board.getByLabel('Type a line').fill('give 1 90');
  await board.getByRole('button', { name: 'Send' }).click();
  const says = board.getByLabel('What it says');
  await expect(says).toContainText('# taken');
  await expect(says).toContainText(/# started 1 order \d+ s/);
  await expect(says).toContainText(/# stopped 1 dose-done \d+ s (8|9)\d ml/);
  await expectAccessible(page);
  await sheet(page, 'Log').click();
  await expect(page.getByText(/\b(8|9)\d ml/).first()).toBeVisible();
  await sheet(page, 'Sketch').click();
  await here.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByRole('banner')).toContainText('Stand-in boards');
});

test('a board that has everything gets its program, in C++ and in MicroPython, as files that belong together', async ({
  page,
}) => {
  await openWithoutTank(page);
  await expect(page.getByText(/waters by itself with Roof pump/)).toBeVisible();
  await page.getByText('C++', { exact: true }).click();
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
  await page.getByRole('button', { name: 'start.py' }).click();
  await expect(page.getByLabel('start.py', { exact: true })).toContainText(
    'from machine import ADC, PWM, Pin',
  );
});

/** The roof board of the sample, whose pump draws from no tank. */
async function openWithoutTank(page: Page): Promise<void> {
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
}

test('a program is loaded onto a board that runs the interpreter; then the board is followed, obeys, and takes a changed limit', async ({
  page,
}) => {
  const port = await boardOnPort(page);
  await openWithoutTank(page);
  const loading = page.getByRole('region', { name: 'Load onto the board' });
  await loading.getByRole('button', { name: 'Load onto the board' }).click();
  await expect(loading.getByRole('status')).toContainText('Writing beside the old program');
  await expect(loading.getByRole('status')).toContainText('Program 1 runs on the board', {
    timeout: 180_000,
  });
  await expect(loading).toContainText('c2=');
  const onBoard = page.getByRole('region', { name: 'On the board now' });
  await expect(onBoard).toContainText('The board runs this very program');
  await expectAccessible(page);

  // A limit that is changed in the garden is sent over the line.
  await sheet(page, 'Limits').click();
  // The plots beside it lead to the sheet that is open.
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText('its program');
  await page.getByRole('link', { name: /Chilli crate/ }).click();
  // Before its sheet stands there, the field is another plot's.
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Chilli crate');
  const start = page.getByRole('textbox', { name: 'Start limit' }).first();
  await start.fill('33', { timeout: 180_000 });
  await start.press('Enter');
  await sheet(page, 'Sketch').click();
  await expect(onBoard).toContainText('start limit: ');
  await onBoard.getByRole('button', { name: 'Send the garden’s to the board' }).click();
  await expect(onBoard).toContainText('The board runs this very program');
  expect(await port.line.ask('limits')).toContain('start 33.0');

  // A guard that is changed needs loading, and what has changed since is told.
  await sheet(page, 'Limits').click();
  await page.getByRole('link', { name: 'Program', exact: true }).click();
  const most = page.getByLabel('Maximum run');
  await most.fill('17', { timeout: 180_000 });
  await most.press('Enter');
  await sheet(page, 'Sketch').click();
  await expect(onBoard).toContainText('The board runs another program than this one');
  await expect(onBoard).toContainText('maximum run: 17 s, and was 15 s');
  await page.keyboard.press('Control+z');
  await expect(onBoard).toContainText('The board runs this very program');

  // The real pump runs for a trial with the jug, and the bench check has seen that it was switched.
  await sheet(page, 'Dose').click();
  await page.getByRole('button', { name: 'Run the real pump for 8 s' }).click();
  await page.getByRole('button', { name: 'Run it' }).click();
  await expect(page.getByText(/It ran for [789] s\. Read the jug/)).toBeVisible();
  await sheet(page, 'Sketch').click();
  await page.getByText('The bench check').click();
  await expect(page.getByRole('checkbox', { name: 'Roof pump is switched on and off' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /C2 pulled out/ })).not.toBeChecked();
  port.line.raw = 65_535;
  await expect(page.getByRole('checkbox', { name: /C2 pulled out/ })).toBeChecked();

  // It is told its network over the cable, and nothing of that stays in the page.
  await page.getByText('Tell the board its network').click();
  await page.getByLabel('Name of the Wi-Fi').fill('Hare & Hounds');
  await page.getByLabel('Its password').fill('wet marigolds');
  await page.getByLabel('The gateway').fill('gateway.example');
  await page.getByLabel('The board’s key').fill('ab'.repeat(20));
  await page.getByRole('button', { name: 'Tell the board', exact: true }).click();
  await expect(page.getByText(/numbers and a port, as 192\.168\.1\.5:4860/)).toBeVisible();
  await page.getByLabel('The gateway').fill('192.168.1.5');
  await page.getByRole('button', { name: 'Tell the board', exact: true }).click();
  await expect(page.getByText('The board knows its network and joins it now.')).toBeVisible();
  await expect(page.getByLabel('Its password')).toHaveValue('');
  expect(await port.line.ask('net')).toContain('knows wifi password gateway key');

  // Watering that is switched off is switched off on the board as well, and the other way round it is told that the board has not been.
  await sheet(page, 'Limits').click();
  await page.getByRole('link', { name: 'Limits', exact: true }).last().click();
  await page.getByRole('button', { name: 'Switch watering off' }).click();
  await expect.poll(() => port.line.ask('limits')).toContain('water off');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('The board itself does not water by itself yet.')).toBeVisible();
  await sheet(page, 'Sketch').click();

  // Loading once more, the line is cut in the middle: the program before it starts again.
  await loading.getByRole('button', { name: 'Load onto the board' }).click();
  await expect(loading.getByRole('status')).toContainText('Writing beside the old program');
  port.cut();
  await expect(loading.getByRole('alert')).toContainText('The line to the board was cut');
  port.plugIn();
  await port.line.board.cutPower();
  expect(await port.line.ask('version')).toContain('# version 1 ');
  port.end();
});
