/** Rules: limits to begin with, programs in words and on yesterday, guards that hold, a line that locks, signals and alerts. */
import type { Page } from '@playwright/test';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import {
  clock,
  expect,
  expectAccessible,
  message,
  openSample,
  plot,
  sheet,
  test,
  view,
  reload,
} from './careful.ts';

async function openLimits(page: Page, name: RegExp): Promise<void> {
  await openSample(page);
  await plot(page, name).click();
  await sheet(page, 'Limits').click();
}

async function type(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
}

test('limits to begin with: a cautious default that says so, a rule of thumb as what it is, and undo', async ({
  page,
}) => {
  await openLimits(page, /Chilli crate/);
  await expect(page.getByText(/Cautious limits: start at/)).toBeVisible();
  await expect(page.getByText(/says nothing about the soil/)).toBeVisible();
  await page.getByRole('button', { name: 'Take these limits' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Chilli crate: water below 40.0 % span, stop at 60.0 % span',
  );
  await page.getByText(/Rules that makers pass on/).click();
  await page.getByRole('button', { name: /Take Succulents/ }).click();
  await expect(message(page, /taken from a rule of thumb/)).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Start limit' })).toHaveAttribute('aria-valuenow', '15');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: 'Start limit' })).toHaveAttribute('aria-valuenow', '40');
});

test('where a word begins can be moved on the ruler, never beyond its neighbours', async ({ page }) => {
  await openLimits(page, /Chilli crate/);
  const grip = page.getByRole('slider', { name: 'Where dry becomes low' });
  await grip.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(grip).toHaveAttribute('aria-valuenow', '23.5');
  for (let press = 0; press < 5; press += 1) await page.keyboard.press('PageUp');
  // Right begins at the start limit, 45; a word is at least one percent wide.
  await expect(grip).toHaveAttribute('aria-valuenow', '44');
  await page.waitForTimeout(900);
  await reload(page);
  await expect(grip).toHaveAttribute('aria-valuenow', '44');
});

test('words go with the limits in one step; set apart they stay, it is said, and one press puts them back', async ({
  page,
}) => {
  await openLimits(page, /Chilli crate/);
  const words = page.getByRole('region', { name: 'Words of this plot' });
  await expect(words).toContainText('Right is from start to stop');
  await words.getByText('Where one word gives way to the next').click();
  await expect(words.getByLabel('low up to')).toHaveValue('45.0');
  const start = page.getByLabel('Start limit').nth(1);
  await start.fill('40');
  await start.press('Enter');
  await expect(words.getByLabel('low up to')).toHaveValue('40.0');
  await expect(words.getByLabel('dry up to')).toHaveValue('20.0');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(words.getByLabel('low up to')).toHaveValue('45.0');
  await words.getByLabel('low up to').fill('50');
  await words.getByLabel('low up to').press('Enter');
  await expect(words).toContainText('The words stand apart from the limits');
  await words.getByRole('button', { name: 'Put them back with the limits' }).click();
  await expect(words.getByLabel('low up to')).toHaveValue('45.0');
  await words.getByText('too dry, good, too wet').click();
  await expect(page.getByRole('link', { name: /Chilli crate/ })).toContainText(/(good|too wet|too dry), /);
  await expectAccessible(page);
});

test('temperature limits are kept, and one that contradicts its neighbour is not', async ({ page }) => {
  await openLimits(page, /Chilli crate/);
  const low = page.getByLabel('Air is too cold below, °C');
  await low.fill('40');
  await expect(low).toHaveAttribute('aria-invalid', 'true');
  await low.fill('4');
  await low.press('Enter');
  await reload(page);
  await expect(low).toHaveValue('4');
});

test('a program is told in a sentence and shown on yesterday; what contradicts is kept, named with both sides, and waters nothing', async ({
  page,
}) => {
  await openLimits(page, /Chilli crate/);
  await view(page, 'Program').click();
  await expect(
    page.getByText(/^When Chilli crate falls below 45\.0 % span, give 120 ml, wait 15 min/),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /^Timeline of yesterday/ })).toBeVisible();
  await expectAccessible(page);

  await expect(page.getByText(/^A day may ask for [\d\s]+ ml; 600 ml are allowed/)).toBeVisible();

  const dose = page.getByLabel('Dose', { exact: true });
  await dose.fill('200');
  await expect(page.getByText(/The dose takes 23 s, and the maximum run is 15 s/)).toBeVisible();
  await dose.press('Enter');
  await expect(message(page, /Roof pump waters nothing by itself until this is solved/)).toBeVisible();
  await reload(page);
  await expect(dose).toHaveValue('200');
  await expect(dose).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByLabel('Maximum run')).toHaveAttribute('aria-invalid', 'true');
  await expect(
    page.getByText('Roof pump waters nothing by itself until', { exact: false }).first(),
  ).toBeVisible();
  await expect(page.getByText('off: its settings stand against each other')).toBeVisible();
  await expectAccessible(page);
  await dose.fill('120');
  await dose.press('Enter');
  await expect(page.getByLabel('Maximum run')).toHaveAttribute('aria-invalid', 'false');
  await page.getByLabel('Let it soak for').fill('10');
  await expect(page.getByText(/shorter than the minimum interval of 15 min/)).toBeVisible();
  await page.getByLabel('Let it soak for').press('Escape');

  await page.getByLabel('within hours').check();
  await expect(page.getByText(/^Between 20:00 and 07:00, when Chilli crate falls below/)).toBeVisible();
  await page.getByLabel('it is dark').click();
  await expect(page.getByText(/Nothing in this garden measures light/).first()).toBeVisible();
  await page.getByLabel('it is dark').uncheck();

  await page.getByLabel('How Roof pump decides').selectOption('timer');
  await expect(page.getByText(/^Between 20:00 and 07:00, at 20:00 every day, give 120 ml/)).toBeVisible();
  await type(page, 'Time 1', '12:00');
  await expect(page.getByText(/The time 12:00 lies outside of the hours/).first()).toBeVisible();
  await type(page, 'Time 1', '6:30');
  await expect(page.getByText(/at 06:30 every day/)).toBeVisible();
  await page.getByRole('group', { name: 'Time 1, days' }).getByLabel('Sun').click();
  await expect(
    page.getByText(/on Mondays, Tuesdays, Wednesdays, Thursdays, Fridays and Saturdays/),
  ).toBeVisible();
  for (const [kind, says] of [
    ['veto', /unless Chilli crate has 58\.0 % span or more/],
    ['until-wet', /run until it has 58\.0 % span/],
    ['single-dose', /not again within 1 d/],
    ['alert-only', /^Nothing runs by itself/],
  ] as const) {
    await page.getByLabel('How Roof pump decides').selectOption(kind);
    await expect(page.getByText(says)).toBeVisible();
  }
  await expect(page.getByLabel('How Roof pump decides').getByRole('option')).toHaveCount(6);
  // Back from “alert only” nothing was lost.
  await page.getByLabel('How Roof pump decides').selectOption('pulse-soak');
  await expect(page.getByText(/give 120 ml, wait 15 min/)).toBeVisible();
});

test('an order by hand runs and can be stopped; doses that raise nothing lock the line until a person has looked', async ({
  page,
}) => {
  await openLimits(page, /Chilli crate/);
  await view(page, 'Program').click();
  const answer = page.getByRole('region', { name: 'Answer' });
  await answer.getByRole('button', { name: 'Give it now' }).click();
  const first = page.getByRole('dialog', { name: 'Run Roof pump now?' });
  await expect(first).toContainText(/\d+ ml will come, in \d+ s/);
  await first.getByRole('button', { name: 'Run it' }).click();
  await expect(answer.getByText(/running for/)).toBeVisible();
  await answer.getByRole('button', { name: 'Stop it now' }).click();
  // The next look, a second later, already says what holds it now; in soil that is wet enough, that it is.
  await expect(
    answer.getByText(/off: (stopped by hand|the minimum interval|the soil is not drier)/),
  ).toBeVisible();

  // In the air it holds, and says why.
  await sheet(page, 'Readout').click();
  await page.getByRole('button', { name: 'Pull the probe out' }).click();
  await sheet(page, 'Limits').click();
  await expect(answer.getByText(/the probe reads what it reads in air/)).toBeVisible({ timeout: 180_000 });
  await expect(plot(page, /Chilli crate/)).toContainText('unknown: out of the soil?');

  // Back in the soil and stuck at one value: no dose ever shows.
  await sheet(page, 'Readout').click();
  await page.getByRole('button', { name: 'Push it back in' }).click();
  await sheet(page, 'Limits').click();
  await view(page, 'Limits').click();
  for (const [which, percent] of [
    ['Stop', '95'],
    ['Start', '90'],
  ] as const) {
    const limit = page.getByRole('textbox', { name: `${which} limit` }).first();
    await limit.fill(percent);
    await limit.press('Enter');
  }
  await expect(plot(page, /Chilli crate/)).toContainText(/(low|dry), /, { timeout: 180_000 });
  await sheet(page, 'Readout').click();
  await page.getByText('Try a fault on the stand-in').click();
  await page.getByLabel('The probe is').selectOption('stuck');
  await clock(page, '×60').click();
  await sheet(page, 'Limits').click();
  await view(page, 'Program').click();
  // Short waits, so that the doses are soon given.
  await type(page, 'Daily maximum', '5000');
  await type(page, 'Minimum interval', '60');
  await type(page, 'Within', '2');
  await type(page, 'Let it soak for', '2');
  // The morning's round may have used all its doses: it is over after six minutes then.
  await type(page, 'Then rest', '0.1');
  await expect(answer.getByText(/is locked\./)).toBeVisible({ timeout: 180_000 });
  await expect(page.getByRole('link', { name: /\d alerts?/ }).first()).toBeVisible();
  await answer.getByRole('button', { name: 'I have looked: unlock it' }).click();
  await expect(answer.getByText(/is locked\./)).toHaveCount(0);
  await sheet(page, 'Log').click();
  const events = page.getByRole('region', { name: 'Events' });
  await expect(events.getByRole('cell', { name: 'Unlocked' }).first()).toBeVisible();
  await expect(events.getByRole('cell', { name: 'Locked', exact: true }).first()).toBeVisible();
});

test('signals speak by the person’s order', async ({ page }) => {
  await openLimits(page, /Mint trough/);
  await view(page, 'Signals').click();
  await expect(page.getByText(/Mint trough now: probe fault/)).toBeVisible();
  await expectAccessible(page);
  const first = page.getByRole('row').nth(1);
  await expect(first).toContainText('line locked');
  // Past “watering now” and “line locked”.
  await page.getByRole('button', { name: 'probe fault: earlier' }).click();
  await page.getByRole('button', { name: 'probe fault: earlier' }).click();
  await expect(first).toContainText('probe fault');
  await page.getByLabel('Show probe fault').uncheck();
  await expect(page.getByText(/Mint trough now: unknown: probe fault/)).toBeVisible();
  await page.getByLabel('Display for unknown').fill('{word}|Tank {tank} {moisture}');
  await page.getByLabel('Display for unknown').press('Enter');
  await expect(page.getByRole('img', { name: 'Display: unknown: probe / fault' })).toBeVisible();
  await expect(page.getByText('Nothing is called {moisture}.')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the usual list' }).click();
  await expect(first).toContainText('line locked');
});

test('alerts are raised, seen and put off, and their settings kept', async ({ page }) => {
  await openLimits(page, /Mint trough/);
  // How many there are depends on the hour; the mint's plug is always out.
  const count = page.getByRole('link', { name: /^\d+ alerts?$/ });
  await count.click();
  const before = Number((await count.textContent())?.split(' ')[0]);
  const raised = page.getByRole('list', { name: 'Alerts that are raised' });
  const fault = raised.getByRole('listitem').filter({ hasText: 'the probe cannot be trusted' });
  await expect(fault).toContainText('Mint trough');
  await expectAccessible(page);
  await fault.getByRole('button', { name: /^Again in 4 h/ }).click();
  await expect(fault.getByText(/put off until/)).toBeVisible();
  await fault.getByRole('button', { name: /^Seen/ }).click();
  await expect(fault.getByText(/seen, and not told again/)).toBeVisible();
  await expect(page.getByRole('link', { name: /^\d+ alerts?$/ })).toHaveCount(before > 1 ? 1 : 0);
  await type(page, 'Cold, frost: so for, minutes', '15');
  await type(page, 'Dry: quiet from', '21:15');
  await page.waitForTimeout(5500);
  await reload(page);
  await expect(page.getByLabel('Cold, frost: so for, minutes')).toHaveValue('15');
  await expect(page.getByLabel('Dry: quiet from')).toHaveValue('21:15');
  // What was seen stays seen.
  await expect(fault.getByText(/seen, and not told again/)).toBeVisible();
});

test('a second line of a plot follows the first; without a leader it cannot', async ({ page }) => {
  await openLimits(page, /Chilli crate/);
  await view(page, 'Program').click();
  await page.getByRole('button', { name: 'Add another line' }).click();
  await page.getByLabel('Water line', { exact: true }).selectOption({ label: 'Roof pump 2' });
  await expect(page.getByText(/^Nothing runs by itself/)).toBeVisible();
  await page.getByLabel('How Roof pump 2 decides').selectOption('follower');
  await expect(page.getByText(/^After each run of Roof pump, run as long/)).toBeVisible();
  await type(page, 'Runs for', '60');
  await expect(page.getByText(/run 60 % as long/)).toBeVisible();
  // Its leader away, it only alerts.
  await page.getByLabel('Water line', { exact: true }).selectOption({ label: 'Roof pump' });
  await page.getByRole('button', { name: 'Remove this line' }).click();
  await expect(page.getByText(/^Nothing runs by itself/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Water line', { exact: true })).toBeVisible();
});

test('of two air thermometers the line goes by the one that is chosen, and by none before', async ({
  page,
}) => {
  const garden = marigoldHare(Date.UTC(2026, 4, 1, 12));
  const air = garden.channels.find((one) => one.quantity === 'air temperature');
  if (!air) throw new Error('no thermometer');
  const second = { ...air, id: 'air-two', label: 'Air under the bench', streamName: 'air2' };
  const text = writeGardenFile({ ...garden, channels: [...garden.channels, second] });
  await page.goto('/');
  await page
    .getByLabel('Garden file')
    .setInputFiles({ name: 'two.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Limits').click();
  await view(page, 'Program').click();

  const conditions = page.getByRole('region', { name: 'Only when' });
  const isCool = conditions.getByLabel('the air is cool enough');
  await isCool.click();
  await expect(conditions.getByRole('alert')).toContainText('2 channels measure the air temperature.');
  await expect(isCool).toBeChecked();
  await expect(
    page.getByText('Roof pump waters nothing by itself until this is solved.').first(),
  ).toBeVisible();
  await conditions.getByLabel('Measured by').selectOption({ label: 'Air under the bench' });
  await expect(conditions.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText(/Only while the air is below 28\.0 °C/)).toBeVisible();
  // What it goes by taken away, nothing waters.
  await conditions.getByLabel('Measured by').selectOption({ label: 'Not chosen yet' });
  await expect(conditions.getByRole('alert')).toContainText('Choose which of them this line goes by.');
});

test('other outputs: a permit contact that only forbids, a grow light by the sun, and what contradicts itself', async ({
  page,
}) => {
  await openLimits(page, /Chilli crate/);
  await view(page, 'Other outputs').click();
  await page.getByRole('button', { name: 'Add a permit contact' }).click();
  const permit = page.getByRole('region', { name: 'Chilli crate permit contact', exact: true });
  await expect(
    permit.getByText(/the other timer may water until Chilli crate has 58\.0 % span/),
  ).toBeVisible();
  await expect(
    permit.getByText(/forbids the timer \(at rest\).*deciding by itself is switched off/),
  ).toBeVisible();
  await permit.getByText('It lets through (closed at rest)').click();
  await expect(permit.getByText(/without current, it lets the timer water\./)).toBeVisible();
  await permit.getByRole('button', { name: 'Let it decide by itself' }).click();
  // The crate is wet: the contact forbids by itself now, whatever it does at rest.
  await expect(permit.getByText(/Now forbids the timer since/)).toBeVisible();
  await permit.getByLabel('the skip switch is off').click();
  await expect(permit.getByText(/stays at rest until this is solved/)).toBeVisible();
  await permit.getByRole('button', { name: 'Go to it' }).first().click();
  await expect(permit.getByLabel('the skip switch is off')).toBeFocused();
  await permit.getByLabel('the skip switch is off').click();
  await expect(permit.getByText(/stays at rest until/)).toHaveCount(0);

  await page.getByRole('button', { name: 'Add a grow light' }).click();
  const light = page.getByRole('region', { name: 'Chilli crate grow light', exact: true });
  await light.getByLabel('From', { exact: true }).selectOption({ label: 'by sunset' });
  await expect(light.getByText(/^Lit from sunset to 20:00/)).toBeVisible();
  await expect(light.getByText(/Today the sun rises at \d\d:\d\d and sets at \d\d:\d\d/)).toBeVisible();
  await light.getByLabel('a light cell says it is dark').click();
  await expect(light.getByText(/Nothing in this garden measures light/).first()).toBeVisible();
  await expectAccessible(page);
  await reload(page);
  await expect(light.getByText(/^Lit from sunset to 20:00, once the light cell/)).toBeVisible();
  await light.getByRole('button', { name: 'Remove this output' }).click();
  await expect(light).toHaveCount(0);
  await message(page, /was removed/)
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(light).toBeVisible();
});

test('what stands in the program’s sentence can be pressed, and leads to its field', async ({ page }) => {
  await openLimits(page, /Chilli crate/);
  await view(page, 'Program').click();
  await page.getByRole('button', { name: '120 ml', exact: true }).click();
  await expect(page.getByLabel('Dose', { exact: true })).toBeFocused();
  await page.getByRole('button', { name: '600 ml', exact: true }).click();
  await expect(page.getByLabel('Daily maximum')).toBeFocused();
  await page.getByRole('button', { name: 'Rain tank', exact: true }).click();
  await expect(page.getByLabel('Reservoir')).toBeFocused();
  await page.getByRole('button', { name: '45.0 % span', exact: true }).click();
  await expect(page.getByRole('slider', { name: 'Start limit' })).toBeVisible();
});
